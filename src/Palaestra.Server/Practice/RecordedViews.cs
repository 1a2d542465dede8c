using NodaTime;
using Palaestra.Core.Library;
using Palaestra.Core.Photos;
using Palaestra.Core.Practice;
using Palaestra.Core.Signals;

namespace Palaestra.Server.Practice;

/// <summary>How many a session can be made of: of clients who agreed, and not taken away.</summary>
public sealed record RecordedThere(int Traces, int Photos);

/// <param name="Traces">How many of those there are, by lot. <paramref name="Photos"/>: likewise.</param>
public sealed record RecordedForm(string Name, int Traces, int Photos);

/// <param name="Items">Those that can still be shown. <paramref name="Rated"/>: of them, by oneself.</param>
/// <param name="Done">How many have rated all.</param>
public sealed record RecordedRow(
    Guid Id,
    string Name,
    Instant MadeAt,
    string MadeBy,
    int Items,
    int Rated,
    int Done
);

/// <summary>A session on recorded traces and photographs as somebody finds it.</summary>
/// <param name="Next">What is to be rated next; none: all is.</param>
/// <param name="Figures">None before one's own part is done: it would tell what others saw.</param>
public sealed record RecordedView(RecordedRow Session, Guid? Next, RecordedFigures? Figures);

/// <summary>A course to be rated: without the neutral that its band lies about, and without what was found in it.</summary>
public sealed record BareTrace(InstrumentSetup Setup, double Seconds, IReadOnlyList<TraceShape> Shapes);

/// <param name="Asked">Points that can be put on it, seen from there.</param>
public sealed record BarePhoto(PhotoView View, double Width, double Height, IReadOnlyList<PhotoPoint> Asked);

/// <summary>A recorded trace or photograph, without whose it is.</summary>
/// <param name="Number">Of how it is counted, from 1. <paramref name="RungId"/>: the exercise.</param>
/// <param name="Trace">None: it is a photograph. <paramref name="Photo"/>: none: it is a trace.</param>
public sealed record RecordedItemView(
    Guid Id,
    int Number,
    int Items,
    string RungId,
    BareTrace? Trace,
    BarePhoto? Photo
);

public sealed record PracticeConsentForm(bool Given);
