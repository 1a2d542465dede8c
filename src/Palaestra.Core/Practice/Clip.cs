using Palaestra.Core.Body;

namespace Palaestra.Core.Practice;

/// <summary>What gives way in a clip, when and how far.</summary>
/// <param name="Fault">Code. <paramref name="Side"/>: the side of the task it is drawn for, left or right.</param>
/// <param name="Rep">The first rep in which it shows, from 1; none in a hold.</param>
/// <param name="Second">Seconds from the beginning at which half of it is there.</param>
/// <param name="Amount">Share of the fault as the library draws it, above 0.</param>
public sealed record ClipFault(
    string Fault,
    Side Side,
    Degree Degree,
    int? Rep,
    double Second,
    double Amount
);

/// <summary>What a clip shows, drawn from its seed: the same on every machine.</summary>
/// <param name="Seed">0 or more.</param>
/// <param name="Sought">The fault the rung and the view were chosen for: whether it shows or not says nothing about them.</param>
/// <param name="Side">Of the task; both where the rung has no sides. <paramref name="Drawn"/>: the side it is drawn for, left or right.</param>
/// <param name="Reps">3 to 5; 0 for one long hold.</param>
/// <param name="Seconds">All of it, from 8 to 16.</param>
/// <param name="Truth">None: the trunk holds.</param>
public sealed record ClipSpec(
    int Seed,
    string RungId,
    string Sought,
    Side Side,
    Side Drawn,
    View View,
    int Reps,
    double Seconds,
    ClipFault? Truth
)
{
    /// <summary>Seen in a mirror: the other side of everything.</summary>
    public ClipSpec Mirrored() =>
        this with
        {
            Side = Side == Side.Both ? Side.Both : Side.Other(),
            Drawn = Drawn.Other(),
            Truth = Truth is null ? null : Truth with { Side = Truth.Side.Other() },
        };
}

/// <summary>What moves in one picture of a clip: outlines of the shapes of <see cref="ClipPictures.Figure"/>, in their order; empty where it lies as before.</summary>
public sealed record ClipFrame(IReadOnlyList<IReadOnlyList<IReadOnlyList<int>>> Shapes);

/// <summary>A clip as pictures at even steps.</summary>
/// <param name="PerSecond">Pictures a second; what lies between two is filled in by who shows them.</param>
/// <param name="Figure">The first picture, in a frame that holds all of them.</param>
public sealed record ClipPictures(int PerSecond, Figure Figure, IReadOnlyList<ClipFrame> Frames);
