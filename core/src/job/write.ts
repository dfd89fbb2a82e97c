/** What a job file says of a set of files. */
export interface JobToWrite {
  readonly name: string;
  readonly revision: string;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly layers: number;
  readonly thicknessMm?: number;
  readonly finish?: string;
  readonly files: readonly { readonly path: string; readonly function: string; readonly polarity?: string }[];
}

/** The published job file (domain.md 11.3): sizes in mm, paths with forward slashes. */
export function writeJob(j: JobToWrite): string {
  const doc = {
    Header: { GenerationSoftware: { Vendor: "Kobbin", Application: "Kobbin", Version: "1" } },
    GeneralSpecs: {
      ProjectId: { Name: j.name, Revision: j.revision },
      Size: { X: round(j.widthMm), Y: round(j.heightMm) },
      LayerNumber: j.layers,
      ...(j.thicknessMm === undefined ? {} : { BoardThickness: j.thicknessMm }),
      ...(j.finish === undefined ? {} : { Finish: j.finish }),
    },
    FilesAttributes: j.files.map((f) => ({
      Path: f.path,
      FileFunction: f.function,
      FilePolarity: f.polarity ?? "Positive",
    })),
  };
  return `${JSON.stringify(doc, null, 1)}\n`;
}

const round = (v: number) => Math.round(v * 1e6) / 1e6;
