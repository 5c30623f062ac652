/** The value below which a share of all lies, nearest rank. */
export const percentile = (all, share) =>
  [...all].sort((a, b) => a - b)[Math.max(0, Math.ceil(share * all.length) - 1)];
