namespace Palaestra.Core.Library;

/// <summary>What stands wherever exercises are shown, handed out or written about. Whole sentences.</summary>
/// <param name="NoPain">That exercise should not hurt.</param>
/// <param name="Breath">How slow, and breathing.</param>
/// <param name="Stop">When a client stops and calls, in a client's words.</param>
/// <param name="SeenAtOnce">The same for a referrer, in the words of the field.</param>
/// <param name="PractitionerDecides">On screens of the practitioner.</param>
/// <param name="SheetSupports">On what a client takes home. <paramref name="LetterSupports"/>: under a letter.</param>
/// <param name="PickingUp">How to bend at the hips for picking up, once, for clients whose bending is counted.</param>
/// <param name="BetweenReps">The look at the back between reps, beside exercises that return to where they began.</param>
public sealed record Cautions(
    string NoPain,
    string Breath,
    string Stop,
    string SeenAtOnce,
    string PractitionerDecides,
    string SheetSupports,
    string LetterSupports,
    string PickingUp,
    string BetweenReps
)
{
    /// <summary>What stands on every home programme.</summary>
    public string OnSheet => $"{NoPain} {Breath} {Stop} {SheetSupports}";

    /// <summary>What stands with every entry of a calendar.</summary>
    public string OnCalendar => $"{NoPain} {Stop}";
}
