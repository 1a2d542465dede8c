using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Body;
using Palaestra.Data;
using Palaestra.Data.Staff;
using Palaestra.Exchange.Sheets;
using Palaestra.Server.Clients;
using Palaestra.Server.Clinics;
using Palaestra.Server.Day;
using Palaestra.Server.Intake;
using Palaestra.Server.Library;
using Palaestra.Server.Policies;
using Palaestra.Server.TakeHome;
using Palaestra.Server.Words;

namespace Palaestra.Server.Serving;

/// <summary>
/// Does once, shortly after the start and for nobody, what the first person of the morning would otherwise wait for: the sign-in,
/// the day, the drawings and a first page of PDF.
/// </summary>
public sealed partial class WarmUp(
    IServiceScopeFactory scopes,
    IHostApplicationLifetime life,
    WrittenLibrary library,
    WrittenSheets sheets,
    ILogger<WarmUp> log
) : BackgroundService
{
    /// <summary>Whoever is there at once goes before.</summary>
    private static readonly TimeSpan Patience = TimeSpan.FromMilliseconds(700);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        await Task.Yield();
        try
        {
            await Started(stoppingToken);
            await Task.Delay(Patience, stoppingToken);
            await SignInAndDay(stoppingToken);
            _ = library.Version;
            sheets.Of(Side.Right);
            stoppingToken.ThrowIfCancellationRequested();
            sheets.Of(Side.Left);
            stoppingToken.ThrowIfCancellationRequested();
            await FirstPage();
        }
        catch (OperationCanceledException)
        {
            // The server closes before it was warm.
        }
#pragma warning disable CA1031 // Whatever it is, whoever asks next is told of it; nothing was asked for here.
        catch (Exception problem)
#pragma warning restore CA1031
        {
            NotWarm(problem);
        }
    }

    private Task Started(CancellationToken stopping)
    {
        var started = new TaskCompletionSource(TaskCreationOptions.RunContinuationsAsynchronously);
        life.ApplicationStarted.Register(started.SetResult);
        return started.Task.WaitAsync(stopping);
    }

    private async Task SignInAndDay(CancellationToken stopping)
    {
        await using var scope = scopes.CreateAsyncScope();
        var services = scope.ServiceProvider;
        var nobody = new Practitioner { DisplayName = "Nobody" };
        services.GetRequiredService<IPasswordHasher<Practitioner>>().HashPassword(nobody, "nobody's");
        await services
            .GetRequiredService<UserManager<Practitioner>>()
            .FindByEmailAsync("nobody@clinic.example");
        var today = services.GetRequiredService<ClinicClock>().Today;
        await services.GetRequiredService<DayVisits>().On(today);
        await services.GetRequiredService<ClientSearch>().Find(null, clinical: true, without: []);
        await DayEndpoints.Pile(today, services.GetRequiredService<PalaestraDb>());
        stopping.ThrowIfCancellationRequested();
    }

    /// <summary>Letters are read and shaped once; a record is read, and a programme written, as for whoever asks for one next.</summary>
    private async Task FirstPage()
    {
        await using var scope = scopes.CreateAsyncScope();
        var services = scope.ServiceProvider;
        var last = await services
            .GetRequiredService<PalaestraDb>()
            .Plans.AsNoTracking()
            .OrderByDescending(plan => plan.Id)
            .Select(plan => (Guid?)plan.EpisodeId)
            .FirstOrDefaultAsync();
        if (
            last is { } episode
            && await services.GetRequiredService<CaseFiles>().OfEpisode(episode)
                is { CurrentPlan: { } plan } file
        )
        {
            Write(
                services,
                await services.GetRequiredService<HomeProgrammes>().Of(file, plan, record: false)
            );
            return;
        }
        var rung = services.GetRequiredService<PolicyLibrary>().Library.Ladders[0].Rungs[0];
        var figure = services.GetRequiredService<FigureStore>().Of(rung, Side.Left, Frame.End);
        SheetExercise exercise = new(
            Guid.Empty,
            rung.Id,
            Side.Left,
            1,
            false,
            rung.Name,
            null,
            figure,
            [rung.Movement],
            rung.Name,
            rung.Name,
            [new(Side.Left, rung.Name, rung.Name)],
            [],
            [true]
        );
        Write(services, new("A", "A", "A", "A", "A", [exercise], ["A"], "A", "A", "A", "A"));
    }

    private static void Write(IServiceProvider services, Sheet sheet) =>
        SheetPdf.Write(sheet, Paper.A4, large: false, services.GetRequiredService<ClinicWords>().Speech);

    [LoggerMessage(
        LogLevel.Warning,
        "What is asked for first may take a moment longer: it could not be made ready."
    )]
    private partial void NotWarm(Exception problem);
}
