using System.Text.Json.Serialization;
using Microsoft.AspNetCore.Http.HttpResults;
using Palaestra.Core.Agreement;
using Palaestra.Core.Capture;
using Palaestra.Core.Findings;
using Palaestra.Core.Intake;
using Palaestra.Core.Library;
using Palaestra.Core.Photos;
using Palaestra.Core.Planning;
using Palaestra.Core.Progression;
using Palaestra.Server.Description;
using Palaestra.Server.Problems;

namespace Palaestra.Server.Compute;

/// <param name="Events">Capture events of one screen, in any order.</param>
/// <param name="Person">Whom to compare with studied groups; none: nobody is compared.</param>
public sealed record FindingsQuestion(
    ClientProfile Profile,
    string PolicyId,
    IReadOnlyList<CaptureEvent> Events,
    Person? Person = null
);

/// <param name="PainNow">Pain when the visit began, 0 to 10; none: as in the profile.</param>
public sealed record FoldQuestion(string PolicyId, IReadOnlyList<CaptureEvent> Events, int? PainNow = null);

/// <param name="Reference">What pain was compared with, and what that rests on.</param>
/// <param name="DayRules">Rules about the whole visit that fired: under them nothing is added anywhere.</param>
/// <param name="Steady">Pain is long-standing and even: it counts as calm for what is earned and held.</param>
public sealed record DecideAnswer(
    IReadOnlyList<Decision> Decisions,
    Plan NextPlan,
    Reference Reference,
    IReadOnlyList<DayRule> DayRules,
    bool Steady
);

public sealed record DecideQuestion(
    DecideInput Input,
    SpinalStrategy Strategy,
    [property: JsonPropertyName("switchOn")] Activation Activation
);

/// <param name="Asked">What can be pointed at in a picture from there, in order.</param>
public sealed record PhotoAnswer(IReadOnlyList<PhotoPoint> Asked, IReadOnlyList<PhotoAngle> Angles);

/// <summary>The core's computations without a store: the whole input as JSON, the result as JSON, nothing kept.</summary>
public static class ComputeEndpoints
{
    public static void MapCompute(this IEndpointRouteBuilder routes)
    {
        var group = routes.MapGroup("/api/compute").WithTags("Compute");
        group
            .MapPost("/fold", Fold)
            .Described(
                "ComputeFold",
                "Trials from capture events: reps, seconds and range done clean. Nothing is stored."
            );
        group.MapPost("/load", Load).Described("ComputeLoad", "Joint loads of a posture. Nothing is stored.");
        group
            .MapPost("/findings", Findings)
            .Described("ComputeFindings", "Findings from trials. Nothing is stored.");
        group
            .MapPost("/plan", Plan)
            .Described("ComputePlan", "A plan from findings and a client. Nothing is stored.");
        group
            .MapPost("/decide", Decide)
            .Described(
                "ComputeDecide",
                "What becomes of each exercise and side, and why. Nothing is stored."
            );
        group
            .MapPost("/photo", Photo)
            .Described("ComputePhoto", "Angles from points marked in a picture. Nothing is stored.");
        group
            .MapPost("/agreement", Agreement)
            .Described(
                "ComputeAgreement",
                "How far raters agree: intraclass correlations and errors of numbers, kappas of categories. Nothing is stored."
            );
    }

    private static Results<Ok<LoadAnswer>, ProblemHttpResult> Load(
        LoadQuestion question,
        PracticeLibrary library
    )
    {
        var answer = LoadAnswers.Of(question, library);
        return answer.IsValid ? TypedResults.Ok(answer.Value!) : Problem.Fields(answer.Errors);
    }

    private static Results<Ok<PhotoAnswer>, ProblemHttpResult> Photo(PhotoReading photo)
    {
        var errors = PhotoCheck.Errors(photo, "").ToList();
        return errors.Count > 0
            ? Problem.Fields(errors)
            : TypedResults.Ok(new PhotoAnswer(PhotoPoints.Of(photo.View), PhotoAngles.Of(photo)));
    }

    private static Results<Ok<AgreementAnswer>, ProblemHttpResult> Agreement(AgreementQuestion question)
    {
        var answer = AgreementAnswers.Of(question);
        return answer.IsValid ? TypedResults.Ok(answer.Value!) : Problem.Fields(answer.Errors);
    }

    private static Results<Ok<FoldAnswer>, ProblemHttpResult> Fold(
        FoldQuestion question,
        PracticeLibrary library
    )
    {
        var errors = CaptureCheck.Errors([], question.Events, library).ToList();
        var policy = library.FindPolicy(question.PolicyId);
        if (policy is null)
        {
            errors.Add(new("policyId", Message.Of("no.policy", ("policy", question.PolicyId))));
        }
        if (question.PainNow is < 0 or > ProfileCheck.PainMax)
        {
            errors.Add(new("painNow", Message.Of("pain.range")));
        }
        return errors.Count > 0 || policy is null
            ? Problem.Fields(errors)
            : TypedResults.Ok(FoldAnswer.Of(question.Events, policy, library, question.PainNow));
    }

    private static Results<Ok<ScreenFindings>, ProblemHttpResult> Findings(
        FindingsQuestion question,
        PracticeLibrary library
    )
    {
        var errors = ProfileErrors(question.Profile, question.PolicyId, library, "").ToList();
        errors.AddRange(CaptureCheck.Errors([], question.Events, library));
        if (question.Person?.Age is < 0 or > 120)
        {
            errors.Add(new("person.age", Message.Of("age.range")));
        }
        if (errors.Count > 0)
        {
            return Problem.Fields(errors);
        }
        var policy = library.FindPolicy(question.PolicyId)!;
        var trials = TrialFold.Trials(question.Events, library, policy.Pain, question.Profile.Pain.Now);
        return TypedResults.Ok(
            FindingsMaker.Of(trials, question.Profile, policy, library, question.Person, others: [])
        );
    }

    private static Results<Ok<PlanProposal>, ProblemHttpResult> Plan(PlanInput input, PracticeLibrary library)
    {
        var errors = ProfileErrors(input.Profile, input.PolicyId, library, "").ToList();
        errors.AddRange(FindingsErrors(input.Findings, library));
        errors.AddRange(PlanInputErrors(input, library));
        return errors.Count > 0
            ? Problem.Fields(errors)
            : TypedResults.Ok(Planner.Propose(input, library, Guid.CreateVersion7));
    }

    private static IEnumerable<FieldError> PlanInputErrors(PlanInput input, PracticeLibrary library)
    {
        if (!(input.MinutesPerDay >= PlanInput.MinutesMin && input.MinutesPerDay <= PlanInput.MinutesMax))
        {
            yield return new("minutesPerDay", Message.Of("minutes.range"));
        }
        foreach (var error in PlanCheck.Errors(input.Locked ?? [], library, "locked"))
        {
            yield return error;
        }
        foreach (var id in (input.Goals ?? []).Where(id => library.Goals.All(goal => goal.Id != id)))
        {
            yield return new("goals", Message.Of("no.goal", ("goal", id)));
        }
        foreach (var id in (input.Equipment ?? []).Where(id => library.Equipment.All(e => e.Id != id)))
        {
            yield return new("equipment", Message.Of("no.equipment", ("equipment", id)));
        }
        if (input.Age is < 0 or > 120)
        {
            yield return new("age", Message.Of("age.range"));
        }
        foreach (var id in (input.LeftOut ?? []).Where(id => library.FindRung(id) is null))
        {
            yield return new("leftOut", Message.Of("no.rung", ("rung", id)));
        }
    }

    private static Results<Ok<DecideAnswer>, ProblemHttpResult> Decide(
        DecideQuestion question,
        PracticeLibrary library
    )
    {
        var input = question.Input;
        var errors = ProfileErrors(input.Profile, input.PolicyId, library, "input.").ToList();
        errors.AddRange(PlanCheck.Errors(input.Items, library, "input.items"));
        errors.AddRange(Core.Visits.CheckInCheck.Errors(input.CheckIn, library, "input.checkIn"));
        errors.AddRange(DecideCheck.Errors(input, library, "input"));
        if (errors.Count > 0)
        {
            return Problem.Fields(errors);
        }
        var policy = library.FindPolicy(input.PolicyId)!;
        var asked = input with { Items = [.. input.Items.Select(item => item.On(input.Date))] };
        var decisions = DecisionEngine.Decide(asked, library);
        var day = new DayFacts(asked, library);
        var plan = new Plan(
            asked.Items,
            question.Strategy,
            question.Activation,
            policy.Id,
            policy.Version,
            library.Version,
            0,
            []
        );
        return TypedResults.Ok(
            new DecideAnswer(
                decisions,
                NextPlan.Apply(plan, decisions, library, policy, day.Profile),
                day.Reference,
                day.Holds,
                day.Steady
            )
        );
    }

    private static IEnumerable<FieldError> ProfileErrors(
        ClientProfile profile,
        string policyId,
        PracticeLibrary library,
        string prefix
    )
    {
        foreach (var error in ProfileCheck.Errors(profile, library, $"{prefix}profile"))
        {
            yield return error;
        }
        if (library.FindPolicy(policyId) is null)
        {
            yield return new($"{prefix}policyId", Message.Of("no.policy", ("policy", policyId)));
        }
    }

    private static IEnumerable<FieldError> FindingsErrors(ScreenFindings findings, PracticeLibrary library)
    {
        for (var i = 0; i < findings.Entries.Count; i++)
        {
            var entry = findings.Entries[i];
            var ladder = library.Ladders.FirstOrDefault(l => l.Id == entry.LadderId);
            if (ladder is null)
            {
                yield return new(
                    $"findings.entries[{i}].ladderId",
                    Message.Of("no.ladder", ("ladder", entry.LadderId))
                );
            }
            else if (entry.EntryRungId is { } rung && ladder.IndexOf(rung) < 0)
            {
                yield return new(
                    $"findings.entries[{i}].entryRungId",
                    Message.Of("no.rung-on-ladder", ("rung", rung), ("ladder", ladder.Id))
                );
            }
        }
        for (var i = 0; i < findings.Tasks.Count; i++)
        {
            if (library.FindRung(findings.Tasks[i].RungId) is null)
            {
                yield return new(
                    $"findings.tasks[{i}].rungId",
                    Message.Of("no.rung", ("rung", findings.Tasks[i].RungId))
                );
            }
        }
        for (var i = 0; i < findings.Control.Count; i++)
        {
            if (findings.Control[i].Percent is < 0 or > 100)
            {
                yield return new($"findings.control[{i}].percent", Message.Of("control.range"));
            }
        }
        if (findings.Control.Select(c => c.Sector).Distinct().Count() != Enum.GetValues<Sector>().Length)
        {
            yield return new("findings.control", Message.Of("control.each"));
        }
    }
}
