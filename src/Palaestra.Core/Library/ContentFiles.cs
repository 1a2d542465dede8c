using System.Security.Cryptography;
using System.Text;
using System.Text.Json;
using System.Text.Json.Serialization;

namespace Palaestra.Core.Library;

/// <summary>The shapes of the files under <c>content/</c>; their JSON Schemas are written from these types.</summary>
public sealed record FaultsFile(
    string Source,
    IReadOnlyList<Fault> Faults,
    IReadOnlyList<FeltPlace> FeltPlaces,
    [property: JsonPropertyName("$schema")] string? Schema = null
);

/// <summary>The content file of the precautions.</summary>
/// <param name="Source">Where its content is from.</param>
/// <param name="Precautions">In the order they are asked.</param>
/// <param name="AgeNotes">What to mind at an age.</param>
/// <param name="Schema">Path of its JSON schema, for editors.</param>
public sealed record PrecautionsFile(
    string Source,
    IReadOnlyList<Precaution> Precautions,
    IReadOnlyList<AgeNote> AgeNotes,
    [property: JsonPropertyName("$schema")] string? Schema = null
);

/// <summary>The content file of ways to make an exercise harder or other.</summary>
/// <param name="Source">Where its content is from.</param>
/// <param name="Modifiers">In the order they are offered.</param>
/// <param name="Schema">Path of its JSON schema, for editors.</param>
public sealed record ModifiersFile(
    string Source,
    IReadOnlyList<Modifier> Modifiers,
    [property: JsonPropertyName("$schema")] string? Schema = null
);

/// <summary>The content file of the red flags.</summary>
/// <param name="Source">Where its content is from.</param>
/// <param name="DangerSigns">In the order they are asked.</param>
/// <param name="Schema">Path of its JSON schema, for editors.</param>
public sealed record DangerSignsFile(
    string Source,
    IReadOnlyList<DangerSign> DangerSigns,
    [property: JsonPropertyName("$schema")] string? Schema = null
);

/// <summary>The content file of the policies.</summary>
/// <param name="Source">Where its content is from.</param>
/// <param name="Policies">The first is the one of an episode that names none.</param>
/// <param name="Schema">Path of its JSON schema, for editors.</param>
public sealed record PoliciesFile(
    string Source,
    IReadOnlyList<Policy> Policies,
    [property: JsonPropertyName("$schema")] string? Schema = null
);

/// <summary>The content file of choices between schools of practice.</summary>
/// <param name="Source">Where its content is from.</param>
/// <param name="Groups">In the order they are shown.</param>
/// <param name="Schema">Path of its JSON schema, for editors.</param>
public sealed record SchoolsFile(
    string Source,
    IReadOnlyList<SchoolGroup> Groups,
    [property: JsonPropertyName("$schema")] string? Schema = null
);

/// <summary>The content file of what clients train for.</summary>
/// <param name="Source">Where its content is from.</param>
/// <param name="Goals">In the order they are asked.</param>
/// <param name="Schema">Path of its JSON schema, for editors.</param>
public sealed record GoalsFile(
    string Source,
    IReadOnlyList<Goal> Goals,
    [property: JsonPropertyName("$schema")] string? Schema = null
);

/// <summary>The content file of what exercises may need.</summary>
/// <param name="Source">Where its content is from.</param>
/// <param name="Equipment">In the order it is asked for.</param>
/// <param name="Schema">Path of its JSON schema, for editors.</param>
public sealed record EquipmentFile(
    string Source,
    IReadOnlyList<Equipment> Equipment,
    [property: JsonPropertyName("$schema")] string? Schema = null
);

/// <summary>The content file of the map of twelve weeks.</summary>
/// <param name="Source">Where its content is from.</param>
/// <param name="Stages">In order.</param>
/// <param name="Schema">Path of its JSON schema, for editors.</param>
public sealed record TwelveWeeksFile(
    string Source,
    IReadOnlyList<MapStage> Stages,
    [property: JsonPropertyName("$schema")] string? Schema = null
);

/// <summary>The content file of kinds of instruments.</summary>
/// <param name="Source">Where its content is from.</param>
/// <param name="Instruments">Rates, channels and bands of each.</param>
/// <param name="Schema">Path of its JSON schema, for editors.</param>
public sealed record InstrumentsFile(
    string Source,
    IReadOnlyList<InstrumentSetup> Instruments,
    [property: JsonPropertyName("$schema")] string? Schema = null
);

/// <summary>The content file of how simulated clients and devices behave.</summary>
/// <param name="Source">Where its content is from.</param>
/// <param name="Simulated">Their figures.</param>
/// <param name="Schema">Path of its JSON schema, for editors.</param>
public sealed record SimulatedFile(
    string Source,
    Simulated Simulated,
    [property: JsonPropertyName("$schema")] string? Schema = null
);

/// <summary>The content file of what every home programme warns of.</summary>
/// <param name="Source">Where its content is from.</param>
/// <param name="Cautions">The sentences.</param>
/// <param name="Schema">Path of its JSON schema, for editors.</param>
public sealed record CautionsFile(
    string Source,
    Cautions Cautions,
    [property: JsonPropertyName("$schema")] string? Schema = null
);

/// <summary>The content file of pictures of the demo with known angles.</summary>
/// <param name="Source">Where its content is from.</param>
/// <param name="Samples">Each with its points.</param>
/// <param name="Schema">Path of its JSON schema, for editors.</param>
public sealed record PhotoSamplesFile(
    string Source,
    IReadOnlyList<PhotoSample> Samples,
    [property: JsonPropertyName("$schema")] string? Schema = null
);

/// <summary>The content file of names of the sectors.</summary>
/// <param name="Source">Where its content is from.</param>
/// <param name="Sectors">One for each.</param>
/// <param name="Schema">Path of its JSON schema, for editors.</param>
public sealed record SectorsFile(
    string Source,
    IReadOnlyList<SectorText> Sectors,
    [property: JsonPropertyName("$schema")] string? Schema = null
);

/// <summary>The content file of the poses of exercises.</summary>
/// <param name="Source">Where its content is from.</param>
/// <param name="Poses">By id.</param>
/// <param name="Schema">Path of its JSON schema, for editors.</param>
public sealed record PosesFile(
    string Source,
    IReadOnlyDictionary<string, PoseEntry> Poses,
    [property: JsonPropertyName("$schema")] string? Schema = null
);

/// <summary>The content file of how faults look.</summary>
/// <param name="Source">Where its content is from.</param>
/// <param name="FaultPoses">By fault and place of the body.</param>
/// <param name="Schema">Path of its JSON schema, for editors.</param>
public sealed record FaultPosesFile(
    string Source,
    IReadOnlyList<FaultPose> FaultPoses,
    [property: JsonPropertyName("$schema")] string? Schema = null
);

/// <param name="Positions">Positions of the body in the order of a screen: floor before standing.</param>
public sealed record TasksFile(
    string Source,
    IReadOnlyList<Position> Positions,
    IReadOnlyList<ScreenTask> Tasks,
    [property: JsonPropertyName("$schema")] string? Schema = null
);

/// <summary>The content file of figures of others to compare with.</summary>
/// <param name="Source">Where its content is from.</param>
/// <param name="Norms">Of one task.</param>
/// <param name="Ratios">Between two tasks.</param>
/// <param name="Differences">Between sides.</param>
/// <param name="Errors">Of measurement.</param>
/// <param name="Schema">Path of its JSON schema, for editors.</param>
public sealed record NormsFile(
    string Source,
    IReadOnlyList<Norm> Norms,
    IReadOnlyList<NormRatio> Ratios,
    IReadOnlyList<NormDifference> Differences,
    IReadOnlyList<MeasurementError> Errors,
    [property: JsonPropertyName("$schema")] string? Schema = null
);

/// <summary>The content file of the figures of the ability estimate.</summary>
/// <param name="Source">Where its content is from.</param>
/// <param name="Ability">The model.</param>
/// <param name="Schema">Path of its JSON schema, for editors.</param>
public sealed record AbilityFile(
    string Source,
    AbilityModel Ability,
    [property: JsonPropertyName("$schema")] string? Schema = null
);

/// <summary>The content file of the practice room.</summary>
/// <param name="Source">Where its content is from.</param>
/// <param name="Practice">What it goes by.</param>
/// <param name="Schema">Path of its JSON schema, for editors.</param>
public sealed record PracticeFile(
    string Source,
    PracticeModel Practice,
    [property: JsonPropertyName("$schema")] string? Schema = null
);

/// <summary>The content file of one ladder.</summary>
/// <param name="Id">As records name it.</param>
/// <param name="Name">As it is shown.</param>
/// <param name="About">What it trains, in a sentence.</param>
/// <param name="Screened">It is tried in a screen.</param>
/// <param name="Rungs">Lowest first.</param>
/// <param name="Source">Where its content is from.</param>
/// <param name="Direction">What the trunk has to hold on it.</param>
/// <param name="On">On which side of the task it holds.</param>
/// <param name="OffOrder">Rungs whose load does not rise with their place, and why.</param>
/// <param name="Fallback">Where to go below its lowest rung; none: nowhere.</param>
/// <param name="Trained">It is trained, not only tried.</param>
/// <param name="Successors">Rung of another ladder that follows on a rung of this one.</param>
/// <param name="Schema">Path of its JSON schema, for editors.</param>
public sealed record LadderFile(
    string Id,
    string Name,
    string About,
    bool Screened,
    IReadOnlyList<Rung> Rungs,
    string Source,
    Direction Direction,
    OnSide On = OnSide.Task,
    IReadOnlyDictionary<string, string>? OffOrder = null,
    string? Fallback = null,
    bool Trained = true,
    IReadOnlyDictionary<string, string>? Successors = null,
    [property: JsonPropertyName("$schema")] string? Schema = null
)
{
    /// <summary>Without what only the file needs.</summary>
    public Ladder ToLadder() =>
        new(Id, Name, About, Screened, Rungs, Source, Direction, On, OffOrder, Fallback, Trained, Successors);
}

/// <summary>Reads the library from file texts; every error names its file and field.</summary>
public static class ContentFiles
{
    /// <summary>The type of each content file, by the name of its schema.</summary>
    public static IReadOnlyDictionary<string, Type> Schemas { get; } =
        new Dictionary<string, Type>
        {
            ["faults"] = typeof(FaultsFile),
            ["precautions"] = typeof(PrecautionsFile),
            ["modifiers"] = typeof(ModifiersFile),
            ["danger-signs"] = typeof(DangerSignsFile),
            ["policies"] = typeof(PoliciesFile),
            ["schools"] = typeof(SchoolsFile),
            ["goals"] = typeof(GoalsFile),
            ["equipment"] = typeof(EquipmentFile),
            ["twelve-weeks"] = typeof(TwelveWeeksFile),
            ["sectors"] = typeof(SectorsFile),
            ["poses"] = typeof(PosesFile),
            ["fault-poses"] = typeof(FaultPosesFile),
            ["ladder"] = typeof(LadderFile),
            ["tasks"] = typeof(TasksFile),
            ["norms"] = typeof(NormsFile),
            ["ability"] = typeof(AbilityFile),
            ["practice"] = typeof(PracticeFile),
            ["outcomes"] = typeof(OutcomesFile),
            ["cautions"] = typeof(CautionsFile),
            ["instruments"] = typeof(InstrumentsFile),
            ["simulated"] = typeof(SimulatedFile),
            ["photo-samples"] = typeof(PhotoSamplesFile),
        };

    /// <param name="texts">File name relative to <c>content/</c>, with forward slashes, to its text.</param>
    /// <param name="known">Loads of an earlier read; used, and not checked again, where they fit.</param>
    /// <param name="own">Files of the clinic: ladders and poses of theirs, laid over ours. See docs/library.md.</param>
    public static Checked<PracticeLibrary> Read(
        IReadOnlyDictionary<string, string> texts,
        IReadOnlyDictionary<string, string>? own = null,
        KnownLoads? known = null
    )
    {
        var errors = new List<FieldError>();
        var faults = Parse<FaultsFile>(texts, "faults.json", errors);
        var precautions = Parse<PrecautionsFile>(texts, "precautions.json", errors);
        var modifiers = Parse<ModifiersFile>(texts, "modifiers.json", errors);
        var signs = Parse<DangerSignsFile>(texts, "danger-signs.json", errors);
        var policies = Parse<PoliciesFile>(texts, "policies.json", errors);
        var schools = Parse<SchoolsFile>(texts, "schools.json", errors);
        var goals = Parse<GoalsFile>(texts, "goals.json", errors);
        var equipment = Parse<EquipmentFile>(texts, "equipment.json", errors);
        var weeks = Parse<TwelveWeeksFile>(texts, "twelve-weeks.json", errors);
        var sectors = Parse<SectorsFile>(texts, "sectors.json", errors);
        var poses = Parse<PosesFile>(texts, "poses.json", errors);
        var faultPoses = Parse<FaultPosesFile>(texts, "fault-poses.json", errors);
        var tasks = Parse<TasksFile>(texts, "tasks.json", errors);
        var norms = Parse<NormsFile>(texts, "norms.json", errors);
        var ability = Parse<AbilityFile>(texts, "ability.json", errors);
        var practice = Parse<PracticeFile>(texts, "practice.json", errors);
        var outcomes = Parse<OutcomesFile>(texts, "outcomes.json", errors);
        var cautions = Parse<CautionsFile>(texts, "cautions.json", errors);
        var instruments = Parse<InstrumentsFile>(texts, "instruments.json", errors);
        var samples = Parse<PhotoSamplesFile>(texts, "photo-samples.json", errors);
        var simulated = Parse<SimulatedFile>(texts, "simulated.json", errors);
        var ladders = Ladders(texts, errors);
        if (own is not null && errors.Count == 0)
        {
            (ladders, poses) = Overlay.Over(
                ladders,
                poses!,
                Ladders(own, errors),
                OwnPoses(own, errors),
                errors
            );
            ability = OwnAbility(own, errors) ?? ability;
        }
        if (errors.Count > 0)
        {
            return Checked<PracticeLibrary>.Bad(errors);
        }
        errors.AddRange(TaskCheck.Errors(tasks!, ladders.Values));
        errors.AddRange(NormCheck.Errors(norms!, tasks!));
        errors.AddRange(ability!.Ability.Errors());
        errors.AddRange(practice!.Practice.Errors());
        errors.AddRange(simulated!.Simulated.Errors(schools!.Groups));
        errors.AddRange(
            Modifier.Errors(
                modifiers!.Modifiers,
                [.. ladders.Values],
                equipment!.Equipment,
                precautions!.Precautions
            )
        );
        errors.AddRange(PlanContentCheck.Errors(ladders, goals!, equipment!, weeks!));
        var (resolved, families, poseErrors) = PoseEntries.Resolve(poses!.Poses);
        errors.AddRange(poseErrors);
        errors.AddRange(PoseCheck.Errors(resolved, faultPoses!, faults!));
        errors.AddRange(
            LibraryCheck.Errors(
                ladders,
                faults!,
                precautions!,
                policies!,
                sectors!,
                resolved,
                families,
                faultPoses!
            )
        );
        if (errors.Count > 0)
        {
            return Checked<PracticeLibrary>.Bad(errors);
        }
        var library = new PracticeLibrary(
            VersionOf([.. texts, .. own ?? new Dictionary<string, string>()]),
            [.. ladders.Values.OrderBy(ladder => ladder.Id, StringComparer.Ordinal)],
            faults!.Faults,
            faults.FeltPlaces,
            precautions!.Precautions,
            signs!.DangerSigns,
            policies!.Policies,
            sectors!.Sectors,
            resolved,
            families,
            faultPoses!.FaultPoses,
            tasks!.Tasks,
            tasks.Positions,
            norms!,
            schools!.Groups,
            goals!.Goals,
            equipment!.Equipment,
            weeks!.Stages,
            outcomes!.Measures,
            cautions!.Cautions,
            instruments!.Instruments,
            samples!.Samples,
            precautions.AgeNotes,
            modifiers.Modifiers,
            ability.Ability,
            practice.Practice,
            simulated.Simulated
        );
        errors.AddRange(PhotoSample.Errors(library));
        if (errors.Count > 0)
        {
            return Checked<PracticeLibrary>.Bad(errors);
        }
        if (known?.Fits(library) == true)
        {
            return Checked<PracticeLibrary>.Good(library with { KnownDemands = known.Demands });
        }
        errors.AddRange(SchoolCheck.Errors(schools!, policies!));
        errors.AddRange(LoadErrors(ladders, library));
        return errors.Count > 0
            ? Checked<PracticeLibrary>.Bad(errors)
            : Checked<PracticeLibrary>.Good(library);
    }

    /// <summary>What only shows when the bodies are worked out: rungs that do not stand, ladders out of order.</summary>
    private static IEnumerable<FieldError> LoadErrors(
        Dictionary<string, Ladder> ladders,
        PracticeLibrary library
    )
    {
        var falls = library.Demands.Falls.ToList();
        foreach (var (rungId, fall) in falls)
        {
            var file = ladders.First(pair => pair.Value.IndexOf(rungId) >= 0).Key;
            yield return new($"{file} rungs.{rungId}.poses", fall.Words);
        }
        foreach (var error in ladders.SelectMany(pair => LadderOrder.Errors(pair.Key, pair.Value, library)))
        {
            yield return error;
        }
    }

    private static Dictionary<string, Ladder> Ladders(
        IReadOnlyDictionary<string, string> texts,
        List<FieldError> errors
    )
    {
        var ladders = new Dictionary<string, Ladder>();
        foreach (
            var name in texts
                .Keys.Where(name => name.StartsWith("ladders/", StringComparison.Ordinal))
                .Order(StringComparer.Ordinal)
        )
        {
            if (Parse<LadderFile>(texts, name, errors) is { } file)
            {
                ladders[name] = file.ToLadder();
            }
        }
        return ladders;
    }

    private static PosesFile? OwnPoses(IReadOnlyDictionary<string, string> own, List<FieldError> errors) =>
        own.ContainsKey("poses.json") ? Parse<PosesFile>(own, "poses.json", errors) : null;

    /// <summary>How often this clinic's raters miss and imagine faults, once it has measured them, and what goes with it.</summary>
    private static AbilityFile? OwnAbility(IReadOnlyDictionary<string, string> own, List<FieldError> errors)
    {
        if (!own.ContainsKey("ability.json"))
        {
            return null;
        }
        var wrong = new List<FieldError>();
        var file = Parse<AbilityFile>(own, "ability.json", wrong);
        wrong.AddRange(file?.Ability.Errors() ?? []);
        errors.AddRange(wrong.Select(error => error with { Field = $"own {error.Field}" }));
        return wrong.Count == 0 ? file : null;
    }

    private static T? Parse<T>(
        IReadOnlyDictionary<string, string> texts,
        string name,
        List<FieldError> errors
    )
        where T : class
    {
        if (!texts.TryGetValue(name, out var text))
        {
            errors.Add(new(name, Message.Of("content.missing")));
            return null;
        }
        try
        {
            return JsonSerializer.Deserialize<T>(text, CoreJson.Options);
        }
        catch (JsonException problem)
        {
            errors.Add(new($"{name} {problem.Path ?? "$"}", Message.Plain(problem.Message)));
            return null;
        }
    }

    /// <summary>A short fingerprint of all texts, so that plans and decisions can say which library they were made with.</summary>
    private static string VersionOf(IEnumerable<KeyValuePair<string, string>> texts)
    {
        var joined = string.Join(
            '\n',
            texts.OrderBy(t => t.Key, StringComparer.Ordinal).Select(t => t.Key + t.Value)
        );
        return Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(joined)))[..12];
    }
}
