namespace Palaestra.Instruments;

/// <summary>The same stories for every device; each shows them in its own channels.</summary>
public static class DeviceScripts
{
    private const double Quiet = 6;

    /// <param name="swing">What a rep does to each channel.</param>
    /// <param name="gives">What the trunk giving way does to each channel.</param>
    public static IReadOnlyList<Script> For(IReadOnlyList<double> swing, IReadOnlyList<double> gives)
    {
        var reps = Reps(swing);
        var end = reps[^1].At + 9;
        return
        [
            Script.Quiet("still", "lies still", 20),
            new("clean", "five clean reps", end, reps, [], [], [], []),
            new(
                "gives-way",
                "gives way in the third rep and the fifth",
                end,
                reps,
                [new(reps[2].At + 4, 1.5, gives), new(reps[4].At + 4.5, 2, gives)],
                [],
                [],
                []
            ),
            new("trembles", "trembles from the third rep on", end, reps, [], [new(reps[2].At, 20)], [], []),
            new(
                "bump",
                "somebody bumps the table",
                end,
                reps,
                [],
                [],
                [new(reps[1].At + 4, 3 * gives[0] / 2)],
                []
            ),
            new("drops", "the radio drops out twice", end, reps, [], [], [], [new(8, 0.1), new(14, 3)]),
        ];
    }

    private static List<ScriptRep> Reps(IReadOnlyList<double> swing) =>
        [.. Enumerable.Range(0, 5).Select(i => new ScriptRep(Quiet + i * 9, 3, 3, 3, swing))];
}
