namespace Palaestra.Server.Description;

/// <summary>Statuses by which an operation refuses, beside those that follow from what it takes (<see cref="Refusals"/>).</summary>
public sealed record OwnRefusals(IReadOnlyList<int> Statuses);

public static class Description
{
    /// <summary>How the API description names an operation, what it does in a sentence, and by which statuses it refuses.</summary>
    public static RouteHandlerBuilder Described(
        this RouteHandlerBuilder operation,
        string name,
        string summary,
        params int[] refusals
    ) => operation.WithName(name).WithSummary(summary).WithMetadata(new OwnRefusals(refusals));
}
