import { expect, test } from "@jest/globals";
import { createOnce } from "./once.ts";

test("what is asked for again before it is answered is done once; after it, refused or not, again", async () => {
  const once = createOnce();
  let done = 0;
  const answers: ((is: boolean) => void)[] = [];
  const work = () => {
    done++;
    return new Promise<void>((yes, no) => answers.push((is) => (is ? yes() : no(new Error("refused")))));
  };
  once(work);
  once(work);
  expect(done).toBe(1);
  answers[0]!(true);
  await Promise.resolve();
  once(work);
  once(work);
  expect(done).toBe(2);
  answers[1]!(false);
  await new Promise((soon) => setTimeout(soon));
  once(work);
  expect(done).toBe(3);
  // another form has a press of its own
  createOnce()(work);
  expect(done).toBe(4);
});
