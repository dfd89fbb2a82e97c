// Brings an error out of a timer of a request, where nobody catches it: what must not happen, made to happen.
import http from "node:http";

const emit = http.Server.prototype.emit;
http.Server.prototype.emit = function (event, ...args) {
  if (event === "request" && args[0].headers["x-throw-later"]) {
    const end = args[1].end;
    // in the middle of the answer, out of a timer that the request's own work set
    args[1].end = function (...rest) {
      args[1].end = end;
      setTimeout(() => {
        throw new Error("thrown later");
      }, 0);
      setTimeout(() => this.writableEnded || end.apply(this, rest), 2000);
      return this;
    };
  }
  return emit.call(this, event, ...args);
};
