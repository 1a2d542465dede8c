using CsCheck;
using Palaestra.Core.Findings;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Planning;
using Palaestra.Core.Screening;

namespace Palaestra.Core.Tests.Given;

/// <summary>Random clients: whatever precautions, findings, equipment, goals and minutes.</summary>
public static class AnyClient
{
    private static readonly Guid Seen = Guid.Parse("22222222-2222-2222-2222-222222222222");

    public static readonly Gen<ClientProfile> Profile = Gen.Select(
        Gen.Int[0, 10],
        Gen.Double[0, 48],
        Gen.Bool,
        Gen.Int[0, (1 << Content.Library.Precautions.Count) - 1],
        Gen.Int[0, (1 << Content.Library.Precautions.Count) - 1],
        Gen.Int[0, 1 << 20],
        (pain, settle, night, some, others, ticks) =>
            new ClientProfile(
                new Pain(pain, 10, pain),
                settle,
                night,
                // Two masks together: about a quarter of the precautions each.
                [
                    .. Content
                        .Library.Precautions.Where((_, i) => (some & others & (1 << i)) != 0)
                        .Select(p => Of(p, ticks)),
                ]
            )
    );

    /// <summary>Entries and control that need not fit each other: the planner must hold for all of them.</summary>
    public static readonly Gen<ScreenFindings> Findings = Gen.Select(
        Gen.Int[-2, 12].Array[2 * Content.Library.Ladders.Count],
        Gen.Int[-30, 100].Array[8],
        (heights, percents) => Of(heights, percents)
    );

    public static readonly Gen<PlanInput> Input = Gen.Select(
        Profile,
        Findings,
        Gen.Int[0, Content.Library.Policies.Count - 1],
        Gen.Double[1, 45],
        Gen.Int[0, (1 << Content.Library.Equipment.Count) - 1],
        Gen.Int[0, (1 << Content.Library.Goals.Count) - 1],
        (profile, findings, policy, minutes, equipment, goals) =>
            new PlanInput(
                profile,
                findings,
                Content.Library.Policies[policy].Id,
                SpinalStrategy.Neutral,
                Activation.Brace,
                Math.Round(minutes, 1),
                Goals: [.. Content.Library.Goals.Where((_, i) => (goals & (1 << i)) != 0).Select(g => g.Id)],
                Equipment: equipment % 3 == 0
                    ? null
                    :
                    [
                        .. Content
                            .Library.Equipment.Where((_, i) => (equipment & (1 << i)) != 0)
                            .Select(e => e.Id),
                    ]
            )
    );

    public static ClientPrecaution Of(Precaution precaution, int ticks)
    {
        var side = !precaution.Sided ? Side.Both : (Side)(ticks % 3);
        var options = precaution.Options?.Where((_, i) => (ticks & (1 << i)) != 0).Select(o => o.Id).ToList();
        return new ClientPrecaution(
            precaution.Id,
            side,
            options is null || precaution.Many ? options : [.. options.Take(1)]
        );
    }

    /// <param name="heights">Two a ladder: −2 not tried, −1 not even the lowest rung.</param>
    /// <param name="percents">One a direction; below 0 not seen.</param>
    public static ScreenFindings Of(IReadOnlyList<int> heights, IReadOnlyList<int> percents)
    {
        var entries = Content
            .Library.TrainedLadders.SelectMany(
                (ladder, i) =>
                    new[] { Side.Left, Side.Right }.Select(side =>
                    {
                        var height = Math.Min(
                            heights[2 * i + (side == Side.Left ? 0 : 1)],
                            ladder.Rungs.Count - 1
                        );
                        var tried = heights[2 * i] > -2 && heights[2 * i + 1] > -2;
                        return new RungSearch(
                            ladder.Id,
                            side,
                            tried,
                            null,
                            tried && height >= 0 ? ladder.Rungs[height].Id : null,
                            Message.Plain("given"),
                            tried ? [Seen] : []
                        );
                    })
            )
            .ToList();
        var control = Enum.GetValues<Sector>()
            .Select(
                (sector, i) =>
                    new SectorControl(
                        sector,
                        sector.ToString(),
                        percents[i] < 0 ? null : percents[i],
                        percents[i] < 0 ? [] : [Seen],
                        null
                    )
            )
            .ToList();
        var weakest = control.Where(c => c.Percent < 100).OrderBy(c => c.Percent).FirstOrDefault();
        return new ScreenFindings(
            Message.Plain(""),
            [],
            [],
            entries,
            control,
            weakest is null
                ? null
                : new WeakLink(
                    weakest.Sector,
                    weakest.Percent!.Value,
                    null,
                    "It yields first",
                    Message.Plain("")
                ),
            1,
            0
        );
    }
}
