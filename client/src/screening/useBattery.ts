import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, got, ProblemError } from "../api/client";
import { keys } from "../api/queries";
import type { Battery, BatteryView, ScreenView } from "../api/types";

/** Changes of a battery. Each is stored at once; a change made on another tablet meanwhile wins and is shown. */
export function useBattery(visitId: string, view: BatteryView, onEdit: () => void) {
  const queries = useQueryClient();
  const refresh = () => queries.invalidateQueries({ queryKey: keys.screen(visitId) });
  const show = (next: BatteryView) =>
    queries.setQueryData<ScreenView>(keys.screen(visitId), (old) => (old ? { ...old, battery: next } : old));

  const put = (
    battery: Pick<Battery, "minutesAsked" | "missing">,
    taskIds: string[],
    repeatVisitId?: string,
  ) =>
    got(
      api.PUT("/api/visits/{visitId}/battery", {
        params: { path: { visitId } },
        body: {
          taskIds,
          minutes: battery.minutesAsked,
          missing: battery.missing,
          version: view.version,
          repeatVisitId,
        },
      }),
    );

  /** The tasks in a new order, with one more, or with one less. */
  const store = useMutation({
    mutationFn: (taskIds: string[]) => put(view.battery, taskIds),
    onMutate: (taskIds) => {
      onEdit();
      const items = taskIds.flatMap((id) => view.battery.items.find((item) => item.taskId === id) ?? []);
      show({ ...view, battery: { ...view.battery, items } });
    },
    onSuccess: show,
    onSettled: refresh,
  });

  /** Anew, from the minutes and the equipment, or as in an earlier visit. */
  const propose = useMutation({
    onMutate: onEdit,
    mutationFn: async (ask: { minutes?: number; missing?: string[]; repeatVisitId?: string }) => {
      const proposal = await got(
        api.POST("/api/visits/{visitId}/battery/proposal", {
          params: { path: { visitId } },
          body: {
            minutes: ask.minutes ?? view.battery.minutesAsked,
            missing: ask.missing ?? view.battery.missing,
            repeatVisitId: ask.repeatVisitId,
          },
        }),
      );
      return put(
        proposal,
        proposal.items.map((item) => item.taskId),
        ask.repeatVisitId,
      );
    },
    onSuccess: show,
    onSettled: refresh,
  });

  const error = store.error ?? propose.error;
  return {
    store: store.mutateAsync,
    propose: propose.mutate,
    busy: store.isPending || propose.isPending,
    error,
    conflict: error instanceof ProblemError && error.status === 409,
  };
}
