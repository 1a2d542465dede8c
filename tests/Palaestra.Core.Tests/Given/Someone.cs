using Palaestra.Core.Intake;

namespace Palaestra.Core.Tests.Given;

/// <summary>Clients to test with: calm and without precautions unless said.</summary>
public static class Someone
{
    public static readonly ClientProfile Calm = new(new Pain(1, 2, 1), 1, false, []);

    public static readonly ClientProfile Sore = new(new Pain(7, 8, 6), 36, true, []);

    public static readonly ClientProfile Moderate = new(new Pain(4, 6, 4), 6, false, []);

    public static ClientProfile With(string precaution, Side side = Side.Both) =>
        Calm with
        {
            Precautions = [new ClientPrecaution(precaution, side)],
        };
}
