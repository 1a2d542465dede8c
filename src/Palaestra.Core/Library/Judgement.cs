namespace Palaestra.Core.Library;

/// <summary>
/// Thresholds of the rules that keep a client on the safe side. Common practice throughout; pain is 0 to 10, shares are of 1.
/// </summary>
/// <param name="StopShare">D-PAIN-STOP: share of a side's sets over the limit, one of one is all of them.</param>
/// <param name="StopRise">D-PAIN-STOP: a rise of this many points in one set, whatever the share.</param>
/// <param name="StopPeak">D-PAIN-STOP: a peak from here on that is above before.</param>
/// <param name="RestVisits">Visits an exercise rests that is painful at its lowest.</param>
/// <param name="SessionEndRise">D-PAIN-SESSION: points over the check-in at the end of the session.</param>
/// <param name="SessionPeakRise">D-PAIN-SESSION: a rise of this many points anywhere in the session.</param>
/// <param name="NowRise">D-PAIN-NOW: points over the reference at check-in.</param>
/// <param name="NoTrainingFrom">Pain at check-in from which there is no training today.</param>
/// <param name="BeforeRise">Points over the check-in before an exercise: wait, or half of it.</param>
/// <param name="TakeBackDays">D-PAIN-NEXT: what was raised within so many days is taken back.</param>
/// <param name="HalfDays">D-PAIN-NEXT: days of half the sets where nothing was raised.</param>
/// <param name="FlareWeeks">D-PAIN-NEXT: a second time within so many weeks asks for a review.</param>
/// <param name="HomeDays">D-PAIN-HOME: days of seven over the reference by <paramref name="NowRise"/>.</param>
/// <param name="HomePeak">D-PAIN-HOME: points over the reference that count on one day.</param>
/// <param name="DriftHold">D-PAIN-DRIFT: points the median of three check-ins is over the lowest median of four: nothing is added.</param>
/// <param name="DriftTakeBack">D-PAIN-DRIFT: points from which the last raise is taken back and the client reviewed.</param>
/// <param name="ReferenceOverFirst">The reference is at most the first visit's usual pain and so many points.</param>
/// <param name="ReferenceSetMost">Points a practitioner may set the reference above what it would be.</param>
/// <param name="LegVisits">D-LEG-MEMORY: visits, and <paramref name="LegDays"/> days, both.</param>
/// <param name="LegClearVisits">Visits running without leg pain after which the bar on long-leg rungs lifts.</param>
/// <param name="SteadyUsualMax">Steady: usual pain at most so much, within <paramref name="SteadyWithin"/> over four check-ins.</param>
/// <param name="SteadyDays">Steady: days without a pain rule.</param>
/// <param name="TremorVisits">Visits of clean work that trembles after which reps may grow, at <paramref name="TremorEffortMax"/> at most.</param>
/// <param name="SetupVisits">D-SETUP: visits running felt in the wrong place. <paramref name="SetupTries"/>: tries before another way.</param>
/// <param name="BrokenPer">One broken rep in so many asked counts as clean.</param>
/// <param name="ExhaustedEffort">Effort from which a weaker side gets no extra work.</param>
/// <param name="AwayTwoDays">D-AWAY: days without training that ask for two steps; <paramref name="AwayScreenDays"/>: for a screen first.</param>
/// <param name="NoMoreShare">A step asks "no more" within this share, or within <paramref name="NoMoreNewtonMetres"/>, the larger.</param>
/// <param name="AsideNewtonMetres">Demands under this are put aside when steps are compared.</param>
/// <param name="HardlyLess">A step that lowers the greatest demand by less than this share also takes this share of the work away.</param>
/// <param name="ProbeGrowth">A step up that raises the load by more than this share is tried first.</param>
/// <param name="BendingFrom">P-BENDING: degrees from which the trunk counts as bent, lumbar and thoracic spine together.</param>
/// <param name="BendingReps">P-BENDING: bends a week, where bending irritates or bone is fragile. <paramref name="BendingSeconds"/>: seconds bent a week.</param>
/// <param name="UnderBreak">D-UNDER-BREAK: share by which training stays under the load at which form broke, 0.1 to 0.2.</param>
/// <param name="ReadyShare">D-READY: share of the target's time that was clean at each of <paramref name="ReadyVisits"/> visits running.</param>
/// <param name="ReadyReps">D-READY: clean reps a side over them, or <paramref name="ReadySeconds"/> clean seconds.</param>
/// <param name="ReadyEffortMax">D-READY: effort, which must have been asked, at most so much. <paramref name="ReadyCalmDays"/>: days a back must be calm that was irritable.</param>
/// <param name="ProbesCalm">D-PROBE: exercises tried one up in a visit while calm, <paramref name="ProbesElse"/> otherwise; 0 switches them off.</param>
/// <param name="ProbeGap">D-PROBE: visits until the next try after one that did not hold; <paramref name="ProbeGapPainful"/>: after one that hurt.</param>
/// <param name="CarryShare">D-CARRY: share of the old clean time that is kept, at most <paramref name="CarryTimes"/> times what the try showed.</param>
/// <param name="ShrinkDays">D-HOME: days of a home log before a plan of which too little is done shrinks; <paramref name="ShrinkLeast"/>: exercises that stay.</param>
public sealed record Judgement(
    double StopShare = 0.5,
    int StopRise = 4,
    int StopPeak = 8,
    int RestVisits = 2,
    int SessionEndRise = 2,
    int SessionPeakRise = 3,
    int NowRise = 2,
    int NoTrainingFrom = 8,
    int BeforeRise = 2,
    int TakeBackDays = 14,
    int HalfDays = 7,
    int FlareWeeks = 6,
    int HomeDays = 2,
    int HomePeak = 4,
    int DriftHold = 2,
    int DriftTakeBack = 3,
    int ReferenceOverFirst = 1,
    int ReferenceSetMost = 2,
    int LegVisits = 2,
    int LegDays = 14,
    int LegClearVisits = 2,
    int SteadyUsualMax = 5,
    int SteadyWithin = 1,
    int SteadyDays = 14,
    int TremorVisits = 3,
    int TremorEffortMax = 7,
    int SetupVisits = 2,
    int SetupTries = 2,
    int BrokenPer = 10,
    int ExhaustedEffort = 9,
    int AwayTwoDays = 28,
    int AwayScreenDays = 56,
    double NoMoreShare = 0.05,
    double NoMoreNewtonMetres = 3,
    double AsideNewtonMetres = 25,
    double HardlyLess = 0.2,
    double ProbeGrowth = 0.6,
    double BendingFrom = 15,
    int BendingReps = 100,
    int BendingSeconds = 300,
    double UnderBreak = 0.15,
    double ReadyShare = 0.3,
    int ReadyVisits = 2,
    int ReadyReps = 10,
    int ReadySeconds = 60,
    int ReadyEffortMax = 6,
    int ReadyCalmDays = 7,
    int ProbesCalm = 2,
    int ProbesElse = 1,
    int ProbeGap = 2,
    int ProbeGapPainful = 4,
    double CarryShare = 0.7,
    double CarryTimes = 2,
    int ShrinkDays = 14,
    int ShrinkLeast = 2
);
