using Palaestra.Core.Library;

namespace Palaestra.Core.Capture;

/// <summary>Why a set was stopped.</summary>
public enum StopTrigger
{
    /// <summary>A second breaking fault in a row.</summary>
    Faults,

    /// <summary>Pain over the limit in force.</summary>
    Pain,

    /// <summary>Breath held, and a cue did not clear it.</summary>
    Breath,

    /// <summary>The practitioner wished it.</summary>
    Asked,
}

/// <summary>When a running set is stopped. Common practice.</summary>
public static class StopSigns
{
    /// <summary>
    /// Why a running set ought to be stopped now; none while it may go on. Red flags are told by people, not here.
    /// </summary>
    public static StopTrigger? Of(Trial trial, Policy policy, PracticeLibrary library)
    {
        if (trial.PainOverLimit)
        {
            return StopTrigger.Pain;
        }
        if (BrokenInARow(trial) >= policy.FaultsInARow)
        {
            return StopTrigger.Faults;
        }
        return trial.CueWorked != true && HoldsBreath(trial, library) ? StopTrigger.Breath : null;
    }

    /// <summary>Reps with a breaking fault, counted back from the last; one under way counts as soon as it is marked.</summary>
    private static int BrokenInARow(Trial trial)
    {
        bool Broken(int rep) => trial.Marks.Any(mark => mark.Breaks && mark.ShowsIn(rep));
        var last = trial.Marks.Any(mark => mark.Breaks && mark.Rep == trial.Total + 1)
            ? trial.Total + 1
            : trial.Total;
        var count = 0;
        while (last - count >= 1 && Broken(last - count))
        {
            count++;
        }
        return count;
    }

    /// <summary>Breath held in the last rep or the one under way, after a cue.</summary>
    private static bool HoldsBreath(Trial trial, PracticeLibrary library) =>
        trial.Marks.Any(mark =>
            mark.AfterCue && mark.Rep >= trial.Total && library.Means(mark.Fault, FaultMeaning.BreathHold)
        );
}
