import type { Claim } from 'wattograph-core';

/** "Tobin Ashgrove is here, last seen 3 min ago" */
export function toClaimWords({ author, lastMs }: Claim, nowMs: number): string {
  const minutes = Math.floor(Math.max(0, nowMs - lastMs) / 60_000);
  return `${author} is here${minutes < 1 ? '' : `, last seen ${minutes} min ago`}`;
}
