using System.Text.Json;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Identity.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.ChangeTracking;
using Microsoft.EntityFrameworkCore.Metadata.Builders;
using NodaTime;
using Palaestra.Data.Amendments;
using Palaestra.Data.Audit;
using Palaestra.Data.Clinics;
using Palaestra.Data.Day;
using Palaestra.Data.Intake;
using Palaestra.Data.Outcomes;
using Palaestra.Data.Photos;
using Palaestra.Data.Planning;
using Palaestra.Data.Policies;
using Palaestra.Data.Practice;
using Palaestra.Data.Progression;
using Palaestra.Data.Records;
using Palaestra.Data.Screening;
using Palaestra.Data.Staff;
using Palaestra.Data.Traces;
using Palaestra.Data.Visits;

namespace Palaestra.Data;

/// <summary>The whole store. Documents (plans, decisions, events) are kept as JSON text beside their keys.</summary>
public sealed class PalaestraDb(DbContextOptions<PalaestraDb> options)
    : IdentityDbContext<Practitioner, IdentityRole<Guid>, Guid>(options)
{
    public DbSet<AuditEntry> Audit => Set<AuditEntry>();
    public DbSet<AuditNote> AuditNotes => Set<AuditNote>();
    public DbSet<SignInSession> SignIns => Set<SignInSession>();
    public DbSet<Invitation> Invitations => Set<Invitation>();
    public DbSet<Amendment> Amendments => Set<Amendment>();
    public DbSet<TrialMove> TrialMoves => Set<TrialMove>();
    public DbSet<Client> Clients => Set<Client>();
    public DbSet<EpisodeMove> EpisodeMoves => Set<EpisodeMove>();
    public DbSet<EpisodeDischarge> Discharges => Set<EpisodeDischarge>();
    public DbSet<VisitNote> Notes => Set<VisitNote>();
    public DbSet<VisitChart> Charts => Set<VisitChart>();
    public DbSet<Episode> Episodes => Set<Episode>();
    public DbSet<DangerReport> DangerReports => Set<DangerReport>();
    public DbSet<Visit> Visits => Set<Visit>();
    public DbSet<LoggedEvent> Events => Set<LoggedEvent>();
    public DbSet<PlanRevision> Plans => Set<PlanRevision>();
    public DbSet<PolicyRevision> Policies => Set<PolicyRevision>();
    public DbSet<Clinic> Clinics => Set<Clinic>();
    public DbSet<ClinicSentence> ClinicSentences => Set<ClinicSentence>();
    public DbSet<DecisionRecord> Decisions => Set<DecisionRecord>();
    public DbSet<DecidedVisit> DecidedVisits => Set<DecidedVisit>();
    public DbSet<HomeLogDay> HomeLog => Set<HomeLogDay>();
    public DbSet<LetterDraft> Letters => Set<LetterDraft>();
    public DbSet<StoredPhoto> Photos => Set<StoredPhoto>();
    public DbSet<StoredTrace> Traces => Set<StoredTrace>();
    public DbSet<RecordImport> RecordImports => Set<RecordImport>();
    public DbSet<PracticeRun> PracticeRuns => Set<PracticeRun>();
    public DbSet<RecordedSession> RecordedSessions => Set<RecordedSession>();
    public DbSet<RecordedItem> RecordedItems => Set<RecordedItem>();
    public DbSet<RecordedRating> RecordedRatings => Set<RecordedRating>();
    public DbSet<PracticeAnswer> PracticeAnswers => Set<PracticeAnswer>();
    public DbSet<PracticeTeam> PracticeTeams => Set<PracticeTeam>();
    public DbSet<Standing> Standings => Set<Standing>();
    public DbSet<StandingVisit> StandingVisits => Set<StandingVisit>();
    public DbSet<WorklistRow> Pile => Set<WorklistRow>();

    /// <summary>How often a number is made anew that somebody else was given meanwhile.</summary>
    private const int NumberTries = 5;

    public override async Task<int> SaveChangesAsync(
        bool acceptAllChangesOnSuccess,
        CancellationToken cancellationToken = default
    )
    {
        var numbered = await ClientFiling.File(this, cancellationToken);
        for (var tries = 1; ; tries++)
        {
            try
            {
                return await base.SaveChangesAsync(acceptAllChangesOnSuccess, cancellationToken);
            }
            catch (DbUpdateException problem)
                when (numbered.Count > 0 && tries < NumberTries && ClientFiling.IsNumberTaken(problem))
            {
                await ClientFiling.Number(this, numbered, cancellationToken);
            }
        }
    }

    protected override void ConfigureConventions(ModelConfigurationBuilder configurationBuilder)
    {
        configurationBuilder.Properties<Instant>().HaveConversion<InstantColumn>();
        configurationBuilder.Properties<Message>().HaveConversion<MessageColumn>();
    }

    protected override void OnModelCreating(ModelBuilder builder)
    {
        base.OnModelCreating(builder);
        MapStaff(builder);
        MapAudit(builder);
        MapAmendments(builder);
        MapClients(builder);
        builder.Entity<Episode>(episode =>
        {
            episode.HasOne(e => e.Client).WithMany().HasForeignKey(e => e.ClientId);
            episode.HasMany(e => e.DangerReports).WithOne().HasForeignKey(r => r.EpisodeId);
            episode.HasMany(e => e.Visits).WithOne().HasForeignKey(v => v.EpisodeId);
            episode.Property(e => e.Version).IsConcurrencyToken();
            Json(episode.Property(e => e.Precautions));
            Json(episode.Property(e => e.Goals)).HasDefaultValueSql("'[]'");
            Json(episode.Property(e => e.Equipment));
            Json(episode.Property(e => e.Away)).HasDefaultValueSql("'[]'");
            Json(episode.Property(e => e.PhotoConsent));
            Json(episode.Property(e => e.PracticeConsent));
            episode.Property(e => e.DaysPerWeek).HasDefaultValue(5);
            episode.HasIndex(e => e.FeedKey).IsUnique();
            episode.HasIndex(e => e.HomeKey).IsUnique();
            episode.Property(e => e.Asked).HasDefaultValue(true);
            episode.Property(e => e.RestingShape).HasConversion<string>();
            episode.Property(e => e.Strategy).HasConversion<string>();
            episode.Property(e => e.Activation).HasColumnName("SwitchOn").HasConversion<string>();
        });
        builder.Entity<Visit>(visit =>
        {
            visit.HasIndex(v => v.PlannedAt);
            visit.HasIndex(v => v.SeriesId);
            visit.Property(v => v.Minutes).HasDefaultValue(Visit.UsualMinutes);
            visit.Property(v => v.CalledOff).HasConversion<string>();
            visit.Property(v => v.Version).IsConcurrencyToken();
            visit.Property(v => v.BatteryVersion).IsConcurrencyToken();
            Json(visit.Property(v => v.CheckIn));
            Json(visit.Property(v => v.Intake));
            Json(visit.Property(v => v.Flags));
            Json(visit.Property(v => v.ReferenceSet));
            Json(visit.Property(v => v.Battery));
            Json(visit.Property(v => v.Answers));
            visit.Property(v => v.AnswersVersion).IsConcurrencyToken();
        });
        builder.Entity<LoggedEvent>(logged =>
        {
            logged.HasIndex(e => e.VisitId);
            logged.HasIndex(e => e.TrialId);
            logged.HasOne<Visit>().WithMany().HasForeignKey(e => e.VisitId);
            logged.Property(e => e.Kind).HasConversion<string>();
            Json(logged.Property(e => e.Event));
        });
        builder.Entity<PlanRevision>(plan =>
        {
            plan.HasIndex(p => new { p.EpisodeId, p.Revision }).IsUnique();
            plan.HasOne<Episode>().WithMany().HasForeignKey(p => p.EpisodeId);
            Json(plan.Property(p => p.Plan));
        });
        builder.Entity<PolicyRevision>(policy =>
        {
            policy.HasIndex(p => new { p.PolicyId, p.Version }).IsUnique();
            Json(policy.Property(p => p.Policy));
        });
        builder.Entity<Clinic>(clinic =>
        {
            clinic.Property(c => c.Id).ValueGeneratedNever();
            clinic.Property(c => c.Version).IsConcurrencyToken();
            clinic.Property(c => c.LockMinutes).HasDefaultValue(Clinic.UsualLockMinutes);
            clinic.Property(c => c.RetentionYears).HasDefaultValue(Clinic.UsualRetentionYears);
            clinic.Property(c => c.DateOrder).HasConversion<string>();
            clinic.Property(c => c.WeekStart).HasConversion<string>();
            clinic.Property(c => c.Units).HasConversion<string>().HasDefaultValue(PersonUnits.KgCm);
            Json(clinic.Property(c => c.OwnEye));
        });
        builder.Entity<ClinicSentence>(sentence => sentence.Property(s => s.Version).IsConcurrencyToken());
        builder.Entity<DecisionRecord>(decision =>
        {
            decision.HasOne<Visit>().WithMany().HasForeignKey(d => d.VisitId);
            decision.HasIndex(d => new { d.RuleId, d.Overridden });
            decision.Property(d => d.Proposed).HasConversion<string>();
            decision.Property(d => d.Taken).HasConversion<string>();
            Json(decision.Property(d => d.Proposal));
            Json(decision.Property(d => d.Chosen));
        });
        builder.Entity<DecidedVisit>(decided =>
        {
            decided.HasKey(d => d.VisitId);
            decided.HasOne<Visit>().WithOne().HasForeignKey<DecidedVisit>(d => d.VisitId);
            Json(decided.Property(d => d.Input));
        });
        builder.Entity<HomeLogDay>(day =>
        {
            day.HasIndex(d => new { d.EpisodeId, d.Day }).IsUnique();
            day.HasOne<Episode>().WithMany().HasForeignKey(d => d.EpisodeId);
            day.Property(d => d.Version).IsConcurrencyToken();
            Json(day.Property(d => d.Log));
        });
        builder.Entity<LetterDraft>(letter =>
        {
            letter.HasIndex(l => l.VisitId).IsUnique();
            letter.HasOne<Visit>().WithMany().HasForeignKey(l => l.VisitId);
            letter.Property(l => l.Version).IsConcurrencyToken();
            Json(letter.Property(l => l.Letter));
        });
        builder.Entity<StoredPhoto>(photo =>
        {
            photo.HasIndex(p => p.TrialId);
            photo.HasOne<Visit>().WithMany().HasForeignKey(p => p.VisitId);
        });
        builder.Entity<StoredTrace>(trace =>
        {
            trace.HasIndex(t => t.VisitId);
            trace.HasIndex(t => new { t.TrialId, t.Instrument }).IsUnique();
            trace.HasOne<Visit>().WithMany().HasForeignKey(t => t.VisitId);
            trace.Property(t => t.Instrument).HasConversion<string>();
            trace.Property(t => t.Source).HasConversion<string>();
            Json(trace.Property(t => t.Neutral));
        });
        MapDay(builder);
        MapPractice(builder);
    }

    private static void MapPractice(ModelBuilder builder)
    {
        builder.Entity<PracticeRun>(run =>
        {
            run.HasIndex(r => r.AccountId);
            run.HasOne<Practitioner>().WithMany().HasForeignKey(r => r.AccountId);
            run.HasIndex(r => new { r.TeamId, r.AccountId }).IsUnique();
            run.HasOne<PracticeTeam>().WithMany().HasForeignKey(r => r.TeamId);
            run.Property(r => r.Place).IsConcurrencyToken();
            run.Property(r => r.End).HasConversion<string>();
            Json(run.Property(r => r.Aim));
        });
        builder.Entity<PracticeAnswer>(answer =>
        {
            answer.HasIndex(a => new { a.RunId, a.Place }).IsUnique();
            answer.HasOne<PracticeRun>().WithMany().HasForeignKey(a => a.RunId);
            Json(answer.Property(a => a.Marks));
            Json(answer.Property(a => a.Result));
        });
        builder.Entity<PracticeTeam>(team => Json(team.Property(t => t.Items)));
        builder.Entity<RecordedItem>(item =>
        {
            item.HasIndex(i => new { i.SessionId, i.Place }).IsUnique();
            item.HasOne<RecordedSession>().WithMany().HasForeignKey(i => i.SessionId);
            item.HasIndex(i => i.VisitId);
            item.HasOne<Visit>().WithMany().HasForeignKey(i => i.VisitId);
            Json(item.Property(i => i.Thing));
        });
        builder.Entity<RecordedRating>(rating =>
        {
            rating.HasIndex(r => new { r.ItemId, r.AccountId }).IsUnique();
            rating.HasOne<RecordedItem>().WithMany().HasForeignKey(r => r.ItemId);
            rating.HasIndex(r => r.VisitId);
            rating.HasOne<Practitioner>().WithMany().HasForeignKey(r => r.AccountId);
            Json(rating.Property(r => r.Reading));
        });
    }

    private static void MapClients(ModelBuilder builder)
    {
        builder.Entity<Client>(client =>
        {
            client.Property(c => c.Name).HasMaxLength(200);
            client.HasIndex(c => c.Number).IsUnique();
            client.Property(c => c.Version).IsConcurrencyToken().HasDefaultValue(1);
            client.HasIndex(c => c.MergedIntoId);
            Json(client.Property(c => c.Guardian));
        });
        builder.Entity<EpisodeMove>(move =>
        {
            move.HasIndex(m => m.EpisodeId);
            move.HasOne<Episode>().WithMany().HasForeignKey(m => m.EpisodeId);
            move.HasOne<Client>().WithMany().HasForeignKey(m => m.FromClientId);
            move.HasOne<Client>().WithMany().HasForeignKey(m => m.ToClientId);
        });
        builder.Entity<EpisodeDischarge>(discharge =>
        {
            discharge.HasIndex(d => d.EpisodeId);
            discharge.HasOne<Episode>().WithMany().HasForeignKey(d => d.EpisodeId);
            Json(discharge.Property(d => d.Summary));
        });
        builder.Entity<RecordImport>(import =>
        {
            import.HasIndex(i => i.ClientId);
            import.HasOne<Client>().WithMany().HasForeignKey(i => i.ClientId);
            import
                .Property(i => i.Audit)
                .HasConversion(
                    lines => JsonSerializer.Serialize(lines, RecordJson.Options),
                    text => JsonSerializer.Deserialize<IReadOnlyList<RecordAudit>>(text, RecordJson.Options)!,
                    // Written once.
                    new ValueComparer<IReadOnlyList<RecordAudit>>(
                        (a, b) => ReferenceEquals(a, b),
                        lines => lines.Count,
                        lines => lines
                    )
                );
        });
        builder.Entity<VisitNote>(note =>
        {
            note.HasKey(n => n.VisitId);
            note.HasOne<Visit>().WithOne().HasForeignKey<VisitNote>(n => n.VisitId);
            note.HasIndex(n => n.EpisodeId);
            note.Property(n => n.Version).IsConcurrencyToken();
            Json(note.Property(n => n.Text));
        });
        builder.Entity<VisitChart>(chart =>
        {
            chart.HasKey(c => c.VisitId);
            chart.HasOne<Visit>().WithOne().HasForeignKey<VisitChart>(c => c.VisitId);
            chart.HasIndex(c => c.EpisodeId);
            chart.Property(c => c.Version).IsConcurrencyToken();
            Json(chart.Property(c => c.Chart));
        });
    }

    private static void MapAudit(ModelBuilder builder)
    {
        builder.Entity<AuditEntry>(entry =>
        {
            entry.HasKey(e => e.Number);
            entry.Property(e => e.Number).ValueGeneratedNever();
            entry.Property(e => e.Kind).HasConversion<string>();
            entry.HasIndex(e => new { e.Episode, e.Number });
            entry.HasIndex(e => new { e.AccountId, e.Number });
        });
        builder.Entity<AuditNote>(note => note.Property(n => n.Kind).HasConversion<string>());
    }

    private static void MapAmendments(ModelBuilder builder)
    {
        builder.Entity<Amendment>(amendment =>
        {
            amendment.HasIndex(a => a.EpisodeId);
            amendment.HasOne<Episode>().WithMany().HasForeignKey(a => a.EpisodeId);
            amendment.Property(a => a.Part).HasConversion<string>();
        });
        builder.Entity<TrialMove>(move =>
        {
            move.HasIndex(m => m.TrialId);
            move.HasIndex(m => m.ToVisitId);
            move.HasOne<Visit>().WithMany().HasForeignKey(m => m.VisitId);
            move.HasOne<Visit>().WithMany().HasForeignKey(m => m.ToVisitId);
        });
    }

    private static void MapStaff(ModelBuilder builder)
    {
        Json(builder.Entity<Practitioner>().Property(p => p.Roles)).HasDefaultValueSql("'[]'");
        builder.Entity<Practitioner>(practitioner =>
        {
            practitioner.Property(p => p.DateOrder).HasConversion<string>();
            practitioner.Property(p => p.WeekStart).HasConversion<string>();
            practitioner.Property(p => p.Units).HasConversion<string>();
        });
        builder.Entity<SignInSession>(session =>
        {
            session.HasIndex(s => s.AccountId);
            session.HasOne<Practitioner>().WithMany().HasForeignKey(s => s.AccountId);
        });
        builder.Entity<Invitation>(invitation =>
        {
            invitation.HasIndex(i => i.CodeHash).IsUnique();
            Json(invitation.Property(i => i.Roles));
        });
    }

    private static void MapDay(ModelBuilder builder)
    {
        builder.Entity<Standing>(standing =>
        {
            standing.HasKey(s => s.EpisodeId);
            standing.HasOne<Episode>().WithOne().HasForeignKey<Standing>(s => s.EpisodeId);
            standing.HasMany(s => s.Visits).WithOne().HasForeignKey(v => v.EpisodeId);
            standing.HasMany(s => s.Pile).WithOne().HasForeignKey(p => p.EpisodeId);
            standing.HasIndex(s => s.Stale);
            standing.HasIndex(s => s.LatestOn);
        });
        builder.Entity<StandingVisit>(visit =>
        {
            visit.HasKey(v => v.VisitId);
            visit.Property(v => v.VisitId).ValueGeneratedNever();
        });
        builder.Entity<WorklistRow>(row =>
        {
            row.Property(r => r.Id).ValueGeneratedNever();
            row.HasIndex(r => new { r.Kind, r.From });
        });
    }

    private static PropertyBuilder<T> Json<T>(PropertyBuilder<T> property) =>
        property.HasConversion(
            value => JsonSerializer.Serialize(value, CoreJson.Options),
            text => JsonSerializer.Deserialize<T>(text, CoreJson.Stored)!,
            new ValueComparer<T>(
                (a, b) =>
                    JsonSerializer.Serialize(a, CoreJson.Options)
                    == JsonSerializer.Serialize(b, CoreJson.Options),
                value =>
                    JsonSerializer.Serialize(value, CoreJson.Options).GetHashCode(StringComparison.Ordinal),
                value => value
            )
        );
}
