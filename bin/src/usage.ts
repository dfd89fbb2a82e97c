export const USAGE = `usage: kobbin <command> [--json]
  measure <archive.zip | folder | file…>   what a board's files hold
    --compare <other>                      and what changed against another board
  bom <file>                               a parts list, read
  placement <file>                         a placement file, read
  fit <fit.json>                           what goes into what, with its tolerances
  probe <archive> [--minutes 5]            what to try on a bare board with a meter
  quote <archive> --house <house.json>     what a house asks for a board
    --quantity N [--options <options.json>]
  panel <spec.json> [--out <file.zip>]     a sheet of several boards, solved and proven
  source <instance.json>                   the cheapest basket, proven
  cost <run.json>                          what a run costs, with its curve
  package <run.json> --out <file.zip>      the order package of a run
Options: --json prints one document; --max-seconds N ends a long run (default 60); --help prints this.
Exit: 0 read, 1 rejected as a whole, 2 wrong use, 3 a defect of ours.
`;
