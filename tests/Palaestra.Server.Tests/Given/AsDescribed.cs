using System.Text.Json.Nodes;
using System.Text.RegularExpressions;

namespace Palaestra.Server.Tests.Given;

/// <summary>Every answer of every test is one that the API description tells of its operation.</summary>
public sealed partial class AsDescribed()
    : DelegatingHandler(new HttpClientHandler { CookieContainer = new() })
{
    private sealed record Operation(string Method, Regex Path, int Blanks, IReadOnlySet<int> Statuses);

    private static readonly IReadOnlyList<Operation> Operations = Read();

    protected override async Task<HttpResponseMessage> SendAsync(
        HttpRequestMessage request,
        CancellationToken cancellationToken
    )
    {
        var answer = await base.SendAsync(request, cancellationToken);
        var path = request.RequestUri!.AbsolutePath;
        var asked = Operations.FirstOrDefault(o => o.Method == request.Method.Method && o.Path.IsMatch(path));
        // Faults of the store (5xx) may meet any operation.
        if (asked is not null && (int)answer.StatusCode < 500)
        {
            Assert.True(
                asked.Statuses.Contains((int)answer.StatusCode),
                $"{request.Method} {path} answered {(int)answer.StatusCode}, which its description does not tell."
            );
        }
        return answer;
    }

    private static IReadOnlyList<Operation> Read()
    {
        var description = JsonNode.Parse(
            File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "openapi", "Palaestra.Server.json"))
        )!;
        return
        [
            .. (
                from path in description["paths"]!.AsObject()
                from operation in path.Value!.AsObject()
                select new Operation(
                    operation.Key.ToUpperInvariant(),
                    new($"^{Blank().Replace(Regex.Escape(path.Key).Replace(@"\{", "{"), "[^/]+")}$"),
                    path.Key.Count(c => c == '{'),
                    operation.Value!["responses"]!.AsObject().Select(r => int.Parse(r.Key)).ToHashSet()
                )
            ).OrderBy(o => o.Blanks),
        ];
    }

    [GeneratedRegex(@"\{[^}/]+\}")]
    private static partial Regex Blank();
}
