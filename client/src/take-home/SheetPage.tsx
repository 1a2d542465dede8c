export function SheetPage() {
  return null;
}
