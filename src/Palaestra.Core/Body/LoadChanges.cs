namespace Palaestra.Core.Body;

/// <summary>Which changes make sense for a movement, each with its value as written; none where it does not.</summary>
/// <param name="Range">True where something moves.</param>
/// <param name="KneeBend">Least bend of a knee in the air at the end, degrees.</param>
/// <param name="CounterHeight">Metres.</param>
/// <param name="HeldMass">Kilograms.</param>
public sealed record LoadChoices(bool Range, double? KneeBend, double? CounterHeight, double? HeldMass)
{
    /// <summary>Which changes of load a movement has room for: a counter, an elastic, a leg that bears weight.</summary>
    public static LoadChoices Of(IReadOnlyList<Pose> path)
    {
        var end = path[^1];
        var knees = Skeleton
            .OneSide.Where(side => !LoadChanges.LegBears(end, side))
            .Select(side => end.Posture.At(Joint.KneeLeft.On(side)).Flexion)
            .ToList();
        return new(
            path.Count > 1,
            knees.Count == 0 ? null : Math.Max(0, knees.Min()),
            LoadChanges.HasCounter(end) ? end.HeightOf(Pose.Counter) : null,
            LoadChanges.Hands(end).Count == 0 || end.Tugs is { Count: > 0 }
                ? null
                : end.Held?.Values.Sum() ?? 0
        );
    }
}

/// <summary>What may be changed of a rung before its load is worked out.</summary>
/// <param name="Range">Share of the movement, above 0 to 1.</param>
/// <param name="KneeBend">Least bend of the knees of legs in the air, degrees, 0 to 140.</param>
/// <param name="CounterHeight">Metres, 0.10 to 1.30; for rungs at a counter.</param>
/// <param name="HeldMass">Kilograms in the hands together, 0 to 60.</param>
/// <param name="StepHeight">Metres of the step or seat, 0.05 to 1.00; for rungs on a box.</param>
public sealed record LoadChanges(
    double Range = 1,
    double? KneeBend = null,
    double? CounterHeight = null,
    double? HeldMass = null,
    double? StepHeight = null
)
{
    /// <summary>As the content has it.</summary>
    public static readonly LoadChanges None = new();

    /// <summary>What cannot be changed so on this movement, by field under <paramref name="at"/>; empty where all can be.</summary>
    public IEnumerable<FieldError> Errors(string at, IReadOnlyList<Pose> path)
    {
        if (!(Range is > 0 and <= 1))
        {
            yield return new($"{at}.range", Message.Of("load.range"));
        }
        if (KneeBend is { } knee && !(knee is >= 0 and <= 140))
        {
            yield return new($"{at}.kneeBend", Message.Of("load.knee"));
        }
        if (CounterHeight is { } height && !(height is >= 0.10 and <= 1.30))
        {
            yield return new($"{at}.counterHeight", Message.Of("load.counter"));
        }
        if (CounterHeight is not null && !path.Any(HasCounter))
        {
            yield return new($"{at}.counterHeight", Message.Of("load.no-counter"));
        }
        if (HeldMass is { } mass && !(mass is >= 0 and <= 60))
        {
            yield return new($"{at}.heldMass", Message.Of("load.held"));
        }
        if (HeldMass > 0 && path.All(pose => Hands(pose).Count == 0))
        {
            yield return new($"{at}.heldMass", Message.Of("load.no-hand"));
        }
    }

    private const string Box = "box";

    /// <summary>Whether something stands before the client to hold on to.</summary>
    public static bool HasCounter(Pose pose) => pose.Surfaces?.ContainsKey(Pose.Counter) == true;

    /// <summary>Hands that hold something as written, else those that do not bear.</summary>
    public static IReadOnlyList<string> Hands(Pose pose)
    {
        if (pose.Held is { Count: > 0 } held)
        {
            return [.. held.Keys];
        }
        var bearing = pose.Bearing.Where(c => c.Spot is Spot.Wrist or Spot.Fingertips or Spot.Elbow);
        var sides = bearing.Select(c => c.Side).ToHashSet();
        return
        [
            .. Skeleton
                .OneSide.Where(side => !sides.Contains(side))
                .Select(side => side == Side.Left ? "handLeft" : "handRight"),
        ];
    }

    /// <summary>The movement with these changes; the same poses where nothing is changed.</summary>
    public IReadOnlyList<Pose> Apply(IReadOnlyList<Pose> path) => [.. path.Select(Apply)];

    private Pose Apply(Pose pose)
    {
        if (KneeBend is { } knee)
        {
            pose = pose with { Joints = Bent(pose, knee) };
        }
        if (CounterHeight is { } height && HasCounter(pose))
        {
            pose = pose with
            {
                Surfaces = new Dictionary<string, double>(pose.Surfaces!) { [Pose.Counter] = height },
            };
        }
        if (StepHeight is { } step && pose.Surfaces?.ContainsKey(Box) == true)
        {
            pose = pose with { Surfaces = new Dictionary<string, double>(pose.Surfaces!) { [Box] = step } };
        }
        if (HeldMass is { } mass && Hands(pose) is { Count: > 0 } hands)
        {
            pose = pose with { Held = hands.ToDictionary(hand => hand, _ => mass / hands.Count) };
        }
        return pose;
    }

    /// <summary>Whether that leg carries weight in this pose.</summary>
    public static bool LegBears(Pose pose, Side side) =>
        pose.Bearing.Any(c => c.Side == side && c.Spot is Spot.Knee or Spot.Heel or Spot.Toe or Spot.Ankle);

    private static Dictionary<string, JointAngles> Bent(Pose pose, double knee)
    {
        var joints = new Dictionary<string, JointAngles>(pose.Joints);
        foreach (var side in Skeleton.OneSide)
        {
            var joint = Joint.KneeLeft.On(side);
            var angles = pose.Posture.At(joint);
            if (!LegBears(pose, side) && angles.Flexion < knee)
            {
                joints[side == Side.Left ? "kneeLeft" : "kneeRight"] = angles with { Flexion = knee };
            }
        }
        return joints;
    }
}
