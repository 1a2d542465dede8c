using Microsoft.AspNetCore.Authorization;
using Palaestra.Data.Staff;
using Palaestra.Server.Problems;
using static Palaestra.Data.Staff.Role;

namespace Palaestra.Server.People;

/// <summary>Which roles an operation of the API is for, by its name in the description. What is not in the table is for nobody.</summary>
public static class Permissions
{
    private static readonly IReadOnlySet<Role> Everyone = Enum.GetValues<Role>().ToHashSet();
    private static readonly IReadOnlySet<Role> Clinical = new HashSet<Role> { Role.Practitioner, Trainer };
    private static readonly IReadOnlySet<Role> Judging = new HashSet<Role> { Role.Practitioner };
    private static readonly IReadOnlySet<Role> Keeping = new HashSet<Role> { Administrator };
    private static readonly IReadOnlySet<Role> Desk = new HashSet<Role>
    {
        Role.Practitioner,
        Trainer,
        Reception,
    };
    private static readonly IReadOnlySet<Role> Rules = new HashSet<Role> { Administrator, Role.Practitioner };
    private static readonly IReadOnlySet<Role> Staff = new HashSet<Role>
    {
        Administrator,
        Role.Practitioner,
        Trainer,
    };

    /// <summary>Roles by operation.</summary>
    public static IReadOnlyDictionary<string, IReadOnlySet<Role>> ByOperation { get; } =
        new (IReadOnlySet<Role> Roles, string[] Operations)[]
        {
            (
                Everyone,
                [
                    "SignOut",
                    "Reauthenticate",
                    "GetAccount",
                    "ChangeAccount",
                    "ChangePassword",
                    "GetSignIns",
                    "EndSignIn",
                    "BeginSecondFactor",
                    "ConfirmSecondFactor",
                    "MakeRecoveryCodes",
                    "EndSecondFactor",
                    "SetPin",
                    "GetTabletKey",
                    "AppendSealedEvents",
                    "ReportSealedDangerSigns",
                    "Lock",
                    "Unlock",
                    "GetLibrary",
                    "GetFigureSheet",
                    "GetFigure",
                    "GetFigureFrames",
                    "GetFigureChange",
                    "GetFaultFigure",
                    "GetRung",
                    "GetLiveNews",
                    "GetDay",
                    "GetClinic",
                    "GetClinicMark",
                    "ComputeFold",
                    "ComputeLoad",
                    "ComputeFindings",
                    "ComputePlan",
                    "ComputeDecide",
                    "ComputePhoto",
                    "ComputeAgreement",
                    "GetClip",
                    "GetChartSheet",
                    "GetErased",
                    "GetPractitioners",
                    "FindClients",
                    "GetClient",
                ]
            ),
            (
                Keeping,
                [
                    "GetAccounts",
                    "InviteAccount",
                    "TakeBackInvitation",
                    "SetAccount",
                    "ResetAccount",
                    "EndSignInsOf",
                    "UpdateClinic",
                    "PutClinicMark",
                    "RemoveClinicMark",
                    "WriteSentence",
                    "RemoveSentence",
                    "GetBackups",
                    "MakeBackup",
                    "GetAudit",
                    "GetAuditState",
                    "EraseClient",
                    "GetRetentionOver",
                    "GetClinicRecordsFile",
                    "TakeInClinicRecords",
                ]
            ),
            (
                Rules,
                [
                    "CopyPolicy",
                    "ChangePolicy",
                    "GetSentences",
                    "PreviewSentence",
                    "GetOverrides",
                    "GetClinicView",
                    "GetClinicViewFile",
                    "GetResearchFile",
                    "MergeClients",
                    "FileEpisode",
                    "GetRecordFile",
                    "TakeInRecord",
                ]
            ),
            (Staff, ["GetPolicies", "GetOwnEye"]),
            (
                Clinical,
                [
                    "GetPractice",
                    "BeginDrill",
                    "GetPracticeRun",
                    "AnswerClip",
                    "EndPracticeRun",
                    "SharePracticeRun",
                    "MakePracticeTeam",
                    "GetPracticeTeam",
                    "JoinPracticeTeam",
                    "MakeRecordedSession",
                    "GetRecordedSession",
                    "GetRecordedItem",
                    "GetRecordedPicture",
                    "RateRecordedItem",
                ]
            ),
            (
                Desk,
                [
                    "FindAlikeClients",
                    "RegisterClient",
                    "UpdateClient",
                    "ArchiveClient",
                    "OpenEpisode",
                    "BookVisit",
                    "GetVisitInvitation",
                    "BookSeries",
                    "MoveVisit",
                    "CallOffVisit",
                    "PutVisitBack",
                ]
            ),
            (
                Judging,
                [
                    "ClearDangerReport",
                    "GetPolicyEffects",
                    "GetOwnEyeEffects",
                    "SetOwnEye",
                    "StoreLetter",
                    "DischargeEpisode",
                    "ReopenEpisode",
                ]
            ),
            (
                Clinical,
                [
                    "GetFindings",
                    "CreateClient",
                    "GetEpisode",
                    "UpdateIntake",
                    "ReportDangerSigns",
                    "AskNeutral",
                    "SetNeutral",
                    "AppendEvents",
                    "GetTabletDay",
                    "GetEvents",
                    "GetScreen",
                    "ProposeBattery",
                    "StoreBattery",
                    "GetPlan",
                    "WeighPlan",
                    "ProposePlan",
                    "GetSwaps",
                    "ComparePlans",
                    "AcceptPlan",
                    "GetSheet",
                    "GetSheetPdf",
                    "GetHomePage",
                    "GetCalendar",
                    "GetCalendarFile",
                    "OpenFeed",
                    "CloseFeed",
                    "GetHomeAddress",
                    "OpenHomeAddress",
                    "CloseHomeAddress",
                    "CheckIn",
                    "SetReferencePain",
                    "GetSession",
                    "GetInstruments",
                    "WatchInstrument",
                    "TakeNeutral",
                    "BeginScript",
                    "GetTraces",
                    "KeepTrace",
                    "ImportTrace",
                    "LookAtTraceFile",
                    "GetTrace",
                    "RemoveTrace",
                    "GetTraceFile",
                    "KeepPhoto",
                    "SetPhotoConsent",
                    "SetPracticeConsent",
                    "GetPhoto",
                    "RemovePhoto",
                    "GetOutcomes",
                    "StoreAnswers",
                    "GetLetter",
                    "GetLetterPdf",
                    "GetHomeLog",
                    "GetHomeLogFile",
                    "WriteHomeDay",
                    "ImportHomeLog",
                    "ReadHomeCodes",
                    "GetDecisions",
                    "TakeDecisions",
                    "PreviewDecisions",
                    "AskWhatIf",
                    "GetReplay",
                    "GetChangedDecisions",
                    "GetSeenBy",
                    "GetAmendments",
                    "MoveTrials",
                    "GetNotes",
                    "GetNote",
                    "WriteNote",
                    "SignNote",
                    "GetBodyChart",
                    "DrawBodyChart",
                    "GetBodyChartPicture",
                    "GetDischarge",
                ]
            ),
        }
            .SelectMany(row => row.Operations.Select(name => (name, row.Roles)))
            .ToDictionary(row => row.name, row => row.Roles);

    /// <summary>Operations that the password must have been given for within the last minutes.</summary>
    public static IReadOnlySet<string> Confirmed { get; } =
        new HashSet<string>
        {
            "ClearDangerReport",
            "InviteAccount",
            "SetAccount",
            "ResetAccount",
            "EndSignInsOf",
            "MakeBackup",
            "StoreLetter",
            "SignNote",
            "EraseClient",
            "GetRecordFile",
            "GetClinicRecordsFile",
            "BeginSecondFactor",
            "MakeRecoveryCodes",
            "EndSecondFactor",
            "SetPin",
        };

    /// <summary>All that is answered on a tablet that is locked.</summary>
    public static IReadOnlySet<string> WhileLocked { get; } =
        new HashSet<string> { "Lock", "Unlock", "SignOut" };

    /// <summary>Whether somebody with these roles may; false for an operation that is not in the table.</summary>
    public static bool May(IEnumerable<Role> roles, string operation) =>
        ByOperation.TryGetValue(operation, out var allowed) && roles.Any(allowed.Contains);

    /// <summary>Refuses an operation to whoever has none of its roles, or has to give the password again.</summary>
    public static void UsePermissions(this WebApplication app) =>
        app.Use(
            async (context, next) =>
            {
                if (
                    context.GetEndpoint() is { } endpoint
                    && endpoint.Metadata.GetMetadata<IEndpointNameMetadata>() is { EndpointName: var name }
                    && endpoint.Metadata.GetMetadata<IAllowAnonymous>() is null
                    && Refusal(context.RequestServices.GetRequiredService<WhoIsHere>(), name) is { } refusal
                )
                {
                    await refusal.ExecuteAsync(context);
                    return;
                }
                await next(context);
            }
        );

    private static IResult? Refusal(WhoIsHere who, string operation) =>
        who.SignIn is { Locked: true } && !WhileLocked.Contains(operation) ? Problem.Locked()
        : !May(who.Roles, operation)
            ? Problem.Of(StatusCodes.Status403Forbidden, Message.Of("people.not-allowed"))
        : who.SecondFactorMissing
        && !May(who.Roles.Where(role => role != Administrator), operation)
        // What is for everybody is what anybody may do about themselves.
        && ByOperation[operation].Count < Everyone.Count
            ? Problem.SecondFactorMissing()
        : Confirmed.Contains(operation) && !who.Confirmed ? Problem.Reauthenticate()
        : null;
}
