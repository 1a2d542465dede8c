export function SessionPage() {
  return null;
}
