/** Pins by the number a package name carries; families whose number means something else are left out. */
const NUMBERED =
  /^(?:H|T|M|S|L|V|W|P|C|X|U|E|D)*(?:SO(?:IC|P|N|J)?|QF[NP]|DFN|SON|DIP|DIL|BGA|LGA|LCC|PLCC|CSP|MSOP)[-_ ]?(\d{1,4})\b/i;

/**
 * How many pins a package has by its name, where the name says it: SOIC-8, QFN-32, SOT-23-5, TSSOP16; 2 for chips such as
 * 0603 and for two-legged outlines.
 * @returns undefined where the name says nothing certain
 * @example pinsOfPackage("SOT-23") // 3
 */
export function pinsOfPackage(name: string): number | undefined {
  const text = name.trim();
  if (/^(?:[RCL]_?)?(?:01005|0201|0402|0603|0805|1206|1210|1812|2010|2512)(?:\D|$)/i.test(text)) return 2;
  if (/^(?:SMA|SMB|SMC|SOD[-_ ]?\d+|MELF|MINIMELF)\b/i.test(text)) return 2;
  const sot = /^(?:SOT[-_ ]?23|SC[-_ ]?70|SOT[-_ ]?323)(?:[-_ ](\d))?\b/i.exec(text);
  if (sot) return sot[1] ? Number(sot[1]) : 3;
  const n = NUMBERED.exec(text);
  return n ? Number(n[1]) : undefined;
}
