/** Such as “about 40 s left”. */
export function timeLeft(seconds: number): string {
  return seconds < 90
    ? `about ${Math.max(1, Math.round(seconds))} s left`
    : `about ${Math.round(seconds / 60)} min left`
}
