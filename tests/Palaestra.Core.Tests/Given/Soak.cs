namespace Palaestra.Core.Tests.Given;

/// <summary>
/// How long seeded checks run: 2,000 histories in the test run; `./palaestra soak` asks for 20,000 and for a report,
/// `./palaestra mutate` for 40.
/// </summary>
public static class Soak
{
    private static readonly Lock Writing = new();

    public static int Histories { get; } =
        int.TryParse(Environment.GetEnvironmentVariable("PALAESTRA_SOAK"), out var many) ? many : 2000;

    /// <summary>Cases of a check that the soak does not lengthen: so many, or as many as histories where those are fewer.</summary>
    public static int Cases(int many) => Math.Min(many, Histories);

    /// <summary>A figure for the report; nothing in the test run.</summary>
    public static void Tell(string line)
    {
        if (Environment.GetEnvironmentVariable("PALAESTRA_SOAK_REPORT") is { Length: > 0 } file)
        {
            lock (Writing)
            {
                File.AppendAllLines(file, [line]);
            }
        }
    }
}
