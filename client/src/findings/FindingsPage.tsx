export function FindingsPage() {
  return null;
}
