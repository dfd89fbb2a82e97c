/** What of a log is beyond its window, or could not be read. */
export interface HeatFinding {
  readonly tag:
    | "heat-peak-low"
    | "heat-peak-high"
    | "heat-liquidus-short"
    | "heat-liquidus-long"
    | "heat-soak"
    | "heat-ramp"
    | "heat-cool"
    | "heat-spread"
    | "heat-slow"
    | "heat-gap"
    | "heat-unit-assumed"
    | "heat-unreadable";
  readonly level: "error" | "warning" | "remark";
  readonly probe?: string;
  readonly value?: number;
  readonly limit?: number;
  readonly text: string;
}
