/** The connection is gone, or the database starts, stops or recovers: the statement may be sent again. */
export function isAway(error: unknown): boolean {
  const e = error as { code?: string; message?: string } | undefined;
  return (
    ["ECONNREFUSED", "ECONNRESET", "EPIPE", "57P01", "57P02", "57P03", "08006", "08003", "08001"].includes(
      e?.code ?? "",
    ) ||
    /Connection terminated|has encountered a connection error|timeout exceeded when trying to connect/.test(
      e?.message ?? "",
    )
  );
}
