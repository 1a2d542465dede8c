using System.Text.Json.Nodes;

namespace Palaestra.Server.Tests.Given;

/// <summary>One request as the API description would have it, or nearly.</summary>
public sealed record Asked(string Method, string Path, string Address, string? Body)
{
    public override string ToString() => $"{Method} {Address} {Body}";
}

/// <summary>
/// Makes requests from the API description: bodies that fit their schema, bodies known to be right, and either with something in them
/// replaced, left out, added or put to nothing.
/// </summary>
/// <param name="known">Values that exist, by the name of a parameter or property; without a name: any id.</param>
/// <param name="right">Bodies known to be right, by "POST /api/…".</param>
public sealed class AnyRequest(
    JsonObject description,
    IReadOnlyDictionary<string, string[]> known,
    IReadOnlyDictionary<string, JsonNode> right,
    Random random
)
{
    private static readonly string[] Odd =
    [
        "",
        " ",
        "\u0000",
        "null",
        "../../etc/passwd",
        "'; DROP TABLE Visits; --",
        "%",
        "\u202Egnp",
        "🦴🦴",
        "-1",
        "9999-12-31",
        "0001-01-01",
        "2026-02-30",
        "2026-11-29T25:00:00",
        "00000000-0000-0000-0000-000000000000",
        new('x', 5000),
    ];

    private static readonly string[] OddNumbers =
    [
        "-1",
        "0",
        "1e308",
        "-1e308",
        "2147483648",
        "9223372036854775808",
        "0.1",
        "1e-300",
        "99999",
    ];

    /// <summary>"POST /api/…" of all that may be asked without ending the questions.</summary>
    public IReadOnlyList<(string Method, string Path, JsonObject Operation)> Operations { get; } =
    [
        .. from path in description["paths"]!.AsObject()
        from operation in path.Value!.AsObject()
        where path.Key is not ("/api/sign-out" or "/api/instruments/{device}/stream")
        select (operation.Key.ToUpperInvariant(), path.Key, operation.Value!.AsObject()),
    ];

    public Asked Next()
    {
        var (method, path, operation) = Operations[random.Next(Operations.Count)];
        var body = BodyOf(method, path, operation);
        for (var i = random.Next(4); i > 0 && body is not null; i--)
        {
            body = Spoiled(body);
        }
        var text = body?.ToJsonString();
        if (text is not null && random.Next(40) == 0)
        {
            text = text[..random.Next(text.Length)];
        }
        return new(method, path, AddressOf(path, operation), text);
    }

    /// <summary>A body that fits with, at every place of it, nothing.</summary>
    public IEnumerable<Asked> NullSweep((string Method, string Path, JsonObject Operation) of)
    {
        var whole = BodyOf(of.Method, of.Path, of.Operation, full: true);
        foreach (var place in Places(whole).ToList())
        {
            var copy = whole!.DeepClone();
            Put(copy, place, null);
            yield return new(
                of.Method,
                of.Path,
                AddressOf(of.Path, of.Operation, there: true),
                copy.ToJsonString()
            );
        }
    }

    private JsonNode? BodyOf(string method, string path, JsonObject operation, bool full = false)
    {
        if (operation["requestBody"]?["content"]?["application/json"]?["schema"] is not { } schema)
        {
            return operation["requestBody"] is null ? null : JsonValue.Create("no picture");
        }
        return right.TryGetValue($"{method} {path}", out var kept) && (full || random.Next(2) == 0)
            ? kept.DeepClone()
            : Fits(schema, "", 0, full);
    }

    private string AddressOf(string path, JsonObject operation, bool there = false)
    {
        var parameters = (operation["parameters"]?.AsArray() ?? []).Select(p => p!.AsObject()).ToList();
        foreach (var parameter in parameters.Where(p => p["in"]!.GetValue<string>() == "path"))
        {
            var name = parameter["name"]!.GetValue<string>();
            path = path.Replace(
                $"{{{name}}}",
                Uri.EscapeDataString(there || random.Next(4) > 0 ? Known(KeyOf(name, path)) : OddText()),
                StringComparison.Ordinal
            );
        }
        var query = parameters
            .Where(p => p["in"]!.GetValue<string>() == "query" && random.Next(2) == 0)
            .Select(p =>
                $"{p["name"]}={Uri.EscapeDataString(random.Next(3) > 0 ? Fits(p["schema"]!, p["name"]!.GetValue<string>(), 0, false)?.ToString() ?? "" : OddText())}"
            );
        return $"{path}?{string.Join('&', query)}".TrimEnd('?');
    }

    private static string KeyOf(string name, string path) =>
        name != "id" ? name
        : path.StartsWith("/api/episodes", StringComparison.Ordinal) ? "episodeId"
        : path.StartsWith("/api/policies", StringComparison.Ordinal) ? "policyId"
        : "id";

    private string Known(string name) =>
        known.TryGetValue(name, out var values)
            ? values[random.Next(values.Length)]
            : known[""][random.Next(known[""].Length)];

    /// <summary>For an address: no zero byte, which ends a request before it is one of ours, and not over-long.</summary>
    private string OddText() =>
        Odd.Where(o => o.Length < 5000 && o != "\0").ElementAt(random.Next(Odd.Length - 2));

    /// <summary>A value of a schema; with all that may be left out where it is to be full.</summary>
    private JsonNode? Fits(JsonNode schema, string name, int depth, bool full)
    {
        if (schema["$ref"] is { } reference)
        {
            var of = reference.GetValue<string>().Split('/')[^1];
            return Fits(description["components"]!["schemas"]![of]!, name, depth, full);
        }
        if ((schema["oneOf"] ?? schema["anyOf"])?.AsArray() is { } kinds)
        {
            var kind = kinds[random.Next(kinds.Count)]!;
            if (kind["type"]?.ToString() == "null")
            {
                return full
                    ? Fits(kinds.First(k => k!["type"]?.ToString() != "null")!, name, depth, full)
                    : null;
            }
            var made = Fits(kind, name, depth, full);
            if (schema["discriminator"] is { } told && made is JsonObject union)
            {
                var word = told["mapping"]!
                    .AsObject()
                    .First(m => m.Value!.ToString() == kind["$ref"]!.ToString())
                    .Key;
                union[told["propertyName"]!.GetValue<string>()] = word;
            }
            return made;
        }
        if (schema["enum"]?.AsArray() is { } words)
        {
            return words[random.Next(words.Count)]?.DeepClone();
        }
        return TypeOf(schema) switch
        {
            "object" => Record(schema, depth, full),
            "array" => new JsonArray([
                .. Enumerable
                    .Range(
                        0,
                        depth > 5 ? 0
                            : full ? 1
                            : random.Next(3)
                    )
                    .Select(_ => Fits(schema["items"]!, name, depth + 1, full)),
            ]),
            "integer" => random.Next(-1, 12),
            "number" => Math.Round(random.NextDouble() * 12 - 1, 2),
            "boolean" => random.Next(2) == 0,
            _ => Text(schema, name),
        };
    }

    /// <summary>The type beside null, where it may be null.</summary>
    private static string? TypeOf(JsonNode schema) =>
        schema["type"] is JsonArray types
            ? types.Select(t => t!.ToString()).FirstOrDefault(t => t is not ("null" or "string")) ?? "string"
            : schema["type"]?.ToString();

    private JsonObject Record(JsonNode schema, int depth, bool full)
    {
        var made = new JsonObject();
        var required = schema["required"]?.AsArray().Select(r => r!.ToString()).ToHashSet() ?? [];
        foreach (var (name, of) in schema["properties"]?.AsObject() ?? [])
        {
            if (required.Contains(name) || (depth < 6 && (full || random.Next(2) == 0)))
            {
                made[name] = Fits(of!, name, depth + 1, full);
            }
        }
        return made;
    }

    private JsonNode Text(JsonNode schema, string name) =>
        known.ContainsKey(name)
            ? Known(name)
            : schema["format"]?.ToString() switch
            {
                "uuid" => random.Next(3) > 0 ? Known("") : Guid.NewGuid().ToString(),
                "date" => new DateOnly(2026, 11, 29).AddDays(random.Next(-400, 60)).ToString("yyyy-MM-dd"),
                "date-time" => DateTime.UtcNow.AddMinutes(random.Next(-90000, 90)).ToString("o"),
                _ => "some words",
            };

    private JsonNode? Spoiled(JsonNode body)
    {
        var places = Places(body).ToList();
        if (places.Count == 0)
        {
            return body;
        }
        var place = places[random.Next(places.Count)];
        JsonNode? value = random.Next(6) switch
        {
            0 => null,
            1 => JsonNode.Parse(OddNumbers[random.Next(OddNumbers.Length)]),
            2 => JsonValue.Create(Odd[random.Next(Odd.Length)]),
            3 => new JsonArray(null, 1, "x"),
            4 => new JsonObject { ["unknown"] = 1 },
            _ => JsonValue.Create(Known("")),
        };
        Put(body, place, value);
        return body;
    }

    /// <summary>Every member of every object and list, as the way to it.</summary>
    private static IEnumerable<IReadOnlyList<object>> Places(JsonNode? node) =>
        node switch
        {
            JsonObject record => record.SelectMany(member => Within(member.Key, member.Value)),
            JsonArray list => list.SelectMany((member, i) => Within(i, member)),
            _ => [],
        };

    private static IEnumerable<IReadOnlyList<object>> Within(object step, JsonNode? member) =>
        Places(member).Select(inner => (IReadOnlyList<object>)[step, .. inner]).Prepend([step]);

    private static void Put(JsonNode body, IReadOnlyList<object> place, JsonNode? value)
    {
        var at = body;
        foreach (var step in place.SkipLast(1))
        {
            at = step is int i ? at![i]! : at![(string)step]!;
        }
        if (place[^1] is int index)
        {
            at![index] = value;
        }
        else
        {
            at![(string)place[^1]] = value;
        }
    }
}
