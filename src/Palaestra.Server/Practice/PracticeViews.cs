using NodaTime;
using Palaestra.Core.Body;
using Palaestra.Core.Practice;

namespace Palaestra.Server.Practice;

/// <summary>A clip with its truth.</summary>
/// <param name="Reps">0: one long hold.</param>
/// <param name="PerSecond">Pictures a second. <paramref name="Figure"/>: the first, in a frame that holds all.</param>
/// <param name="Truth">None: the trunk holds.</param>
/// <param name="Clean">The same with nothing giving way; only where it is asked for.</param>
public sealed record ClipView(
    int Seed,
    bool Mirrored,
    string RungId,
    Side Side,
    View View,
    int Reps,
    double Seconds,
    int PerSecond,
    Figure Figure,
    IReadOnlyList<ClipFrame> Frames,
    ClipFault? Truth,
    IReadOnlyList<ClipFrame>? Clean
);

/// <summary>A clip to be marked: nothing in it tells what it shows, nor of which side it is.</summary>
/// <param name="AsksSide">The task has a side, and it is asked once something is marked.</param>
public sealed record ShownClip(
    int Place,
    string RungId,
    View View,
    int Reps,
    double Seconds,
    bool AsksSide,
    ClipPictures Pictures
);

/// <param name="Clips">How many there are, at most.</param>
/// <param name="Answered">How many of them are answered.</param>
/// <param name="Next">None: it is over.</param>
public sealed record PracticeRunView(
    Guid Id,
    Guid? TeamId,
    string? TeamName,
    int Clips,
    int Answered,
    Instant StartedAt,
    DrillEnd? End,
    ShownClip? Next,
    IReadOnlyList<ClipResult> Results,
    bool Shared
);

/// <param name="Episode">The client who comes next: clips of what is in their plan.</param>
public sealed record DrillForm(
    IReadOnlyList<string>? Faults = null,
    Guid? Episode = null,
    int Clips = DrillAim.ClipsUsual,
    int Minutes = DrillAim.MinutesUsual
);

/// <param name="Place">Of the clip that is answered, from 0: told twice, it counts once.</param>
public sealed record ClipAnswerForm(int Place, IReadOnlyList<ClipMark> Marks);

/// <summary>What was there, beside what was marked.</summary>
/// <param name="Why">Why this clip was chosen; none in a team session.</param>
/// <param name="Clean">The clip with nothing giving way, to be laid over it; none in a team session, or where nothing did.</param>
public sealed record ClipFeedback(ClipResult Result, Message? Why, IReadOnlyList<ClipFrame>? Clean);

/// <param name="Feedback">None in a team session: all see the same, and nobody knows before it is over.</param>
public sealed record ClipAnswered(ClipFeedback? Feedback, PracticeRunView Run);

/// <param name="Answered">Clips of it.</param>
public sealed record PracticeRunRow(
    Guid Id,
    Guid? TeamId,
    string? TeamName,
    Instant StartedAt,
    int Answered,
    bool Over
);

/// <param name="Mine">The own run in it; none: not begun. <paramref name="Done"/>: how many have answered all.</param>
/// <param name="OtherLibrary">It was made under another library: nobody can take part any more.</param>
public sealed record PracticeTeamRow(
    Guid Id,
    string Name,
    Instant MadeAt,
    string MadeBy,
    int Clips,
    PracticeRunRow? Mine,
    int Done,
    bool OtherLibrary
);

/// <summary>A client of today, by whose plan a drill can be made.</summary>
public sealed record ComingClient(Guid Episode, string Name, Instant At);

/// <summary>The practice room as somebody finds it.</summary>
/// <param name="Due">It is a quarter of a year, or for ever, that nothing was practised.</param>
/// <param name="LastOn">The day of the last clip; none: there was none.</param>
/// <param name="Open">A drill that was begun and not ended.</param>
/// <param name="Faults">What there are clips of.</param>
/// <param name="Recorded">Sessions on recorded traces and photographs. <paramref name="There"/>: what another can be made of.</param>
public sealed record PracticeView(
    RaterFigures Own,
    bool Due,
    DateOnly? LastOn,
    PracticeRunRow? Open,
    IReadOnlyList<PracticeRunRow> Runs,
    IReadOnlyList<PracticeTeamRow> Teams,
    IReadOnlyList<ComingClient> Coming,
    IReadOnlyList<string> Faults,
    IReadOnlyList<RecordedRow> Recorded,
    RecordedThere There
);

public sealed record TeamForm(string Name, int Clips);

/// <summary>How a team session stands.</summary>
public sealed record PracticeTeamView(PracticeTeamRow Team, TeamFigures Figures);

public sealed record ShareForm(bool Shared);
