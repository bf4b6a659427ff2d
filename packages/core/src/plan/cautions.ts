export const SAFETY_NOTE =
  'This plan does not replace the maker’s manual, the solvent’s safety data sheet, workplace rules or a licensed electrician. When in doubt, stop and ask them.';
