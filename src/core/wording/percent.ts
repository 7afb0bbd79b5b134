/** How a share is said. */

/** A share from 0 to 1: "41%", "0.4%", "less than 0.01%". */
export function percentText(share: number): string {
  const percent = share * 100;
  if (percent === 0 || percent > 99.995) return `${Math.round(percent)}%`;
  if (percent < 0.01) return 'less than 0.01%';
  return percent < 1
    ? `${percent.toFixed(2)}%`
    : percent < 10
      ? `${percent.toFixed(1)}%`
      : `${Math.round(percent)}%`;
}
