/** A point in time as people write it: day, month, hour and minute. */
export function moment(text: string): string {
  return new Date(text).toLocaleString('en-GB', {
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
  })
}
