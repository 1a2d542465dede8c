export function DecidePage() {
  return null;
}
