import { expect, test } from "@jest/globals";
import { networkOf } from "./client.ts";

// /24 of the older addresses, /64 of the newer ones, however they are written
test.each([
  ["192.0.2.17", "192.0.2"],
  ["::ffff:192.0.2.17", "192.0.2"],
  ["2001:db8:1:2:3:4:5:6", "2001:db8:1:2"],
  ["2001:db8:1:2::6", "2001:db8:1:2"],
  ["2001:db8::6", "2001:db8:0:0"],
  ["2001:db8::3:4:5:6:7", "2001:db8:0:3"],
  ["::1", "0:0:0:0"],
  ["::", "0:0:0:0"],
  ["fe80::", "fe80:0:0:0"],
  ["somewhere", "somewhere"],
])("the network of %s is %s", (address, network) => expect(networkOf(address)).toBe(network));
