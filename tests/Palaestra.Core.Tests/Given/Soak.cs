namespace Palaestra.Core.Tests.Given;

/// <summary>How long seeded checks run: 2,000 histories in the test run; `./palaestra soak` sets PALAESTRA_SOAK to 20,000.</summary>
public static class Soak
{
    public static int Histories { get; } =
        int.TryParse(Environment.GetEnvironmentVariable("PALAESTRA_SOAK"), out var many) ? many : 2000;
}
