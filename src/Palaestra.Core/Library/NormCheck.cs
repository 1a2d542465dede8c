namespace Palaestra.Core.Library;

/// <summary>Checks of norms, ratios and measurement errors; each error names file and field.</summary>
public static class NormCheck
{
    /// <summary>What a measurement error can be of, beside tasks and kinds of measure.</summary>
    private static readonly string[] Computed = ["control", "rung"];

    /// <summary>What the norms name that is not there or cannot be, by field; empty where all can be.</summary>
    public static IEnumerable<FieldError> Errors(NormsFile norms, TasksFile tasks)
    {
        var ids = tasks.Tasks.Select(t => t.Id).ToHashSet();
        FieldError Unknown(string field, string task) =>
            new($"norms.json {field}", Message.Of("content.no-task", ("task", task)));
        for (var i = 0; i < norms.Norms.Count; i++)
        {
            var norm = norms.Norms[i];
            if (!ids.Contains(norm.Task))
            {
                yield return Unknown($"norms[{i}].task", norm.Task);
            }
            if (norm.Sd is <= 0 || norm.AgeFrom > norm.AgeTo || (norm.Mean is null && norm.Lines is null))
            {
                yield return new($"norms.json norms[{i}]", Message.Of("content.norm"));
            }
        }
        for (var i = 0; i < norms.Ratios.Count; i++)
        {
            foreach (
                var part in new[] { norms.Ratios[i].Over, norms.Ratios[i].Under }.Where(part =>
                    !ids.Contains(part.Task)
                )
            )
            {
                yield return Unknown($"ratios[{i}]", part.Task);
            }
        }
        var told = norms.Errors.Select(e => e.Of.Replace("-", "").ToLowerInvariant()).ToHashSet();
        foreach (
            var of in Computed
                .Concat(Enum.GetNames<MeasureKind>().Select(name => name.ToLowerInvariant()))
                .Where(of => !told.Contains(of))
        )
        {
            yield return new("norms.json errors", Message.Of("content.no-error", ("of", of)));
        }
        for (var i = 0; i < norms.Errors.Count; i++)
        {
            var error = norms.Errors[i];
            if (
                !ids.Contains(error.Of)
                && !Computed.Contains(error.Of)
                && !Enum.TryParse<MeasureKind>(error.Of.Replace("-", ""), true, out _)
            )
            {
                yield return Unknown($"errors[{i}].of", error.Of);
            }
            if (error.Sem is null && error is not { Sd: > 0, Icc: >= 0 and < 1 })
            {
                yield return new($"norms.json errors[{i}]", Message.Of("content.error"));
            }
        }
    }
}
