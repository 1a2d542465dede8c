namespace Palaestra.Core.Library;

/// <summary>Goals, equipment and the twelve-week map name what there is.</summary>
public static class PlanContentCheck
{
    /// <summary>What goals, equipment and the twelve weeks name that is not there, by field; empty where all is.</summary>
    public static IEnumerable<FieldError> Errors(
        IReadOnlyDictionary<string, Ladder> ladders,
        GoalsFile goals,
        EquipmentFile equipment,
        TwelveWeeksFile weeks
    )
    {
        var known = equipment.Equipment.Select(piece => piece.Id).ToHashSet();
        foreach (var (file, ladder) in ladders)
        {
            foreach (var rung in ladder.Rungs)
            {
                foreach (var piece in rung.Equipment.Where(piece => !known.Contains(piece)))
                {
                    yield return new(
                        $"{file} rungs.{rung.Id}.equipment",
                        Message.Of("content.no-equipment", ("equipment", piece))
                    );
                }
            }
        }
        foreach (var goal in goals.Goals)
        {
            foreach (var id in goal.Ladders.Where(id => ladders.Values.All(ladder => ladder.Id != id)))
            {
                yield return new(
                    $"goals.json goals.{goal.Id}.ladders",
                    Message.Of("content.no-ladder", ("ladder", id))
                );
            }
        }
        for (var i = 0; i < weeks.Stages.Count; i++)
        {
            var stage = weeks.Stages[i];
            if (stage.From > stage.To || (i > 0 && stage.From != weeks.Stages[i - 1].To + 1))
            {
                yield return new($"twelve-weeks.json stages[{i}].from", Message.Of("content.stages"));
            }
            foreach (var id in stage.Rungs.Where(id => ladders.Values.All(ladder => ladder.IndexOf(id) < 0)))
            {
                yield return new(
                    $"twelve-weeks.json stages[{i}].rungs",
                    Message.Of("content.no-rung", ("rung", id))
                );
            }
        }
    }
}
