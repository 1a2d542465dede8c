import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, got } from "../api/client";
import { keys } from "../api/queries";
import type { AccountView } from "../api/types";
import { ProblemNote, Small, Stack } from "../controls/layout";
import { Picker } from "../controls/Picker";
import { dateOrders, unitChoices, weekStarts } from "../controls/readings";
import { say } from "../words/say";

type Reading = AccountView["reading"];

const clinics = "clinic";
const withClinics = <T extends string>(options: { value: T; label: string }[]) => [
  { value: clinics as T | typeof clinics, label: say("people.as-the-clinic") },
  ...options,
];

/** How whoever is signed in reads dates, weeks and measures; kept at once. */
export function ReadingSection({ account }: { account: AccountView }) {
  const queries = useQueryClient();
  const keep = useMutation({
    mutationFn: (reading: Reading) => got(api.PUT("/api/account", { body: { name: account.name, reading } })),
    onSuccess: async (kept) => {
      queries.setQueryData(keys.account, kept);
      // How it is read first, then all that is.
      await queries.invalidateQueries({ queryKey: keys.start });
      await queries.invalidateQueries();
    },
  });
  const { reading } = account;
  const picked = <T extends string>(value: T | typeof clinics) => (value === clinics ? null : value);
  return (
    <section aria-label={say("people.dates-and-measures")}>
      <Stack $gap={2}>
        <h2>{say("people.dates-and-measures")}</h2>
        <Picker
          label={say("people.dates")}
          value={reading.dateOrder ?? clinics}
          options={withClinics(dateOrders)}
          onPick={(dateOrder) => keep.mutate({ ...reading, dateOrder: picked(dateOrder) })}
        />
        <Picker
          label={say("people.weeks-begin-on")}
          value={reading.weekStart ?? clinics}
          options={withClinics(weekStarts)}
          onPick={(weekStart) => keep.mutate({ ...reading, weekStart: picked(weekStart) })}
        />
        <Picker
          label={say("people.height-and-mass")}
          value={reading.units ?? clinics}
          options={withClinics(unitChoices)}
          onPick={(units) => keep.mutate({ ...reading, units: picked(units) })}
        />
        <ProblemNote error={keep.error} />
        <Small>{say("people.on-your-screens")}</Small>
      </Stack>
    </section>
  );
}
