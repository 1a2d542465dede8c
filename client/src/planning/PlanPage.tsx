export function PlanPage() {
  return null;
}
