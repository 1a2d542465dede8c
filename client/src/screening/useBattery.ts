import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, got, ProblemError } from "../api/client";
import { keys } from "../api/queries";
import type { Battery, BatteryItem, BatteryView, ScreenView } from "../api/types";

/**
 * Changes of a battery. Each is shown at once and stored in turn, so that quick presses do not overtake one another; a
 * change made on another tablet meanwhile wins and is shown.
 */
export function useBattery(visitId: string, view: BatteryView, onEdit: () => void) {
  const queries = useQueryClient();
  const key = ["battery", visitId];
  const turn = { mutationKey: key, scope: { id: key.join(" ") } };
  const latest = () => queries.getQueryData<ScreenView>(keys.screen(visitId))?.battery ?? view;
  const show = (next: BatteryView) =>
    queries.setQueryData<ScreenView>(keys.screen(visitId), (old) => (old ? { ...old, battery: next } : old));
  const isLast = () => queries.isMutating({ mutationKey: key }) <= 1;
  /** The answer to a change that others follow is only their version: what is shown is ahead of it. */
  const taken = (answer: BatteryView) => show(isLast() ? answer : { ...latest(), version: answer.version });
  const refresh = () => {
    if (isLast()) void queries.invalidateQueries({ queryKey: keys.screen(visitId) });
  };

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
          version: latest().version,
          repeatVisitId,
        },
      }),
    );

  /** The tasks in a new order, with one more, or with one less. */
  const store = useMutation({
    ...turn,
    mutationFn: (taskIds: string[]) => put(view.battery, taskIds),
    onMutate: async (taskIds) => {
      onEdit();
      // An answer still on its way is of before this change; the next press would build on it.
      await queries.cancelQueries({ queryKey: keys.screen(visitId) });
      const now = latest();
      const items = taskIds.map((id) => now.battery.items.find((item) => item.taskId === id) ?? blank(id));
      show({ ...now, battery: { ...now.battery, items } });
    },
    onSuccess: taken,
    onSettled: refresh,
  });

  /** Anew, from the minutes and the equipment, or as in an earlier visit. */
  const propose = useMutation({
    ...turn,
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
    onSuccess: taken,
    onSettled: refresh,
  });

  const error = store.error ?? propose.error;
  return {
    store: store.mutate,
    storeNow: store.mutateAsync,
    propose: propose.mutate,
    busy: store.isPending || propose.isPending,
    error,
    conflict: error instanceof ProblemError && error.status === 409,
  };
}

/** A task just added, until the server says how long it takes and what to mind. */
const blank = (taskId: string): BatteryItem => ({
  taskId,
  why: "",
  minutes: 0,
  sides: [],
  surface: null,
  cautions: [],
});
