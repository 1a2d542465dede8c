using System.Reflection;
using System.Text.Json.Serialization.Metadata;
using FluentValidation;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Palaestra.Core.Library;
using Palaestra.Data;
using Palaestra.Data.Day;
using Palaestra.Data.Keeping;
using Palaestra.Data.Photos;
using Palaestra.Data.Staff;
using Palaestra.Data.Traces;
using Palaestra.Server;
using Palaestra.Server.Amendments;
using Palaestra.Server.Audit;
using Palaestra.Server.Charts;
using Palaestra.Server.Clients;
using Palaestra.Server.Clinics;
using Palaestra.Server.Compute;
using Palaestra.Server.Day;
using Palaestra.Server.Demo;
using Palaestra.Server.Description;
using Palaestra.Server.Findings;
using Palaestra.Server.Instruments;
using Palaestra.Server.Intake;
using Palaestra.Server.Keeping;
using Palaestra.Server.Library;
using Palaestra.Server.Live;
using Palaestra.Server.Outcomes;
using Palaestra.Server.People;
using Palaestra.Server.Photos;
using Palaestra.Server.Planning;
using Palaestra.Server.Policies;
using Palaestra.Server.Practice;
using Palaestra.Server.Problems;
using Palaestra.Server.Progression;
using Palaestra.Server.Records;
using Palaestra.Server.Screening;
using Palaestra.Server.Serving;
using Palaestra.Server.Tablet;
using Palaestra.Server.TakeHome;
using Palaestra.Server.Visits;
using Palaestra.Server.Words;
using Palaestra.Words;
using Serilog;
using Serilog.Events;

const int requestBodyMax = 1_000_000;

if (args is ["write-schemas", var schemaFolder])
{
    SchemaWriter.Write(schemaFolder);
    return 0;
}
if (args is ["write-load-report", var contentFolder, var reportFile])
{
    File.WriteAllText(reportFile, LoadReport.Text(LibraryLoader.Load(contentFolder)));
    return 0;
}
if (args is ["write-drawn-places", var drawnFolder, var placesFile])
{
    File.WriteAllText(placesFile, DrawnPlaces.Text(LibraryLoader.Load(drawnFolder)));
    return 0;
}
if (args is ["write-reasons", var wordsFolder, var listFile])
{
    File.WriteAllText(
        listFile,
        SentenceList.Text(
            WordFiles.Load(wordsFolder),
            LibraryLoader.Load(wordsFolder),
            File.ReadAllText(Path.Combine(wordsFolder, "words", "samples.json"))
        )
    );
    return 0;
}

var builder = WebApplication.CreateBuilder(args);
var settings = Settings.From(builder.Configuration);
var commanded =
    CertificateCommand.Run(args, settings)
    ?? Doctor.Run(args, settings)
    ?? await KeepingCommands.Run(args, settings)
    ?? await AuditCommand.Run(args, settings)
    ?? await AccountsCommand.Run(args, settings);
if (commanded is { } exitCode)
{
    return exitCode;
}

var describing = Assembly.GetEntryAssembly()?.GetName().Name == "GetDocument.Insider";

// The model of the store is made beside the rest of the start: whoever opens the store first would wait for it.
if (!describing)
{
    _ = Task.Run(() => Store.MakeModel(settings.DataFolder));
}

// Read beside the rest of the start; its errors stop the start below.
var library = Task.Run(() =>
    LibraryLoader.Load(
        settings.ContentFolder,
        settings.OwnContentFolder,
        describing ? null : Path.Combine(settings.DataFolder, "loads.json")
    )
);

builder.Host.UseSerilog(
    (_, log) =>
    {
        if (!describing)
        {
            log.ToFiles(settings);
        }
        log.MinimumLevel.Warning()
            // One machine, one clinic: the keys lie beside the database they guard, readable by the same account.
            .MinimumLevel.Override("Microsoft.AspNetCore.DataProtection", LogEventLevel.Error)
            // A refused write (the same events twice, an edit on an old version) is answered, not a fault of the server.
            .MinimumLevel.Override("Microsoft.EntityFrameworkCore.Update", LogEventLevel.Fatal)
            .MinimumLevel.Override("Microsoft.EntityFrameworkCore.Database.Command", LogEventLevel.Fatal)
            .WriteTo.Console();
    },
    // Each server its own log, where several run in one process.
    preserveStaticLogger: true
);
builder.WebHost.ConfigureKestrel(kestrel =>
{
    kestrel.Limits.MaxRequestBodySize = requestBodyMax;
    kestrel.AddServerHeader = false;
});

builder.AddDoor(settings);
builder.AddTelemetry();

builder.Services.AddSingleton(settings);
builder.Services.AddSingleton(TimeProvider.System);
builder.Services.AddSingleton(services => new ClinicClock(
    services.GetRequiredService<TimeProvider>(),
    settings.TimeZone
));
try
{
    var catalog = WordFiles.Load(settings.ContentFolder, settings.OwnContentFolder);
    builder.Services.AddSingleton(new ClinicCatalog(catalog));
    builder.Services.AddSingleton(_ => new SentenceSamples(
        catalog,
        File.ReadAllText(Path.Combine(settings.ContentFolder, "words", "samples.json"))
    ));
    builder.Services.AddSingleton(ScreenWords.Load(settings.ContentFolder, settings.OwnContentFolder));
}
catch (StartRefusedException refused)
{
    return Told(refused);
}
builder.Services.AddSingleton<ClinicWords>();
builder.Services.AddSingleton<DataFolder>();
builder.Services.AddSingleton<FirstAdministrator>();
builder.Services.AddSingleton<OpenSignIns>();
builder.Services.AddSingleton<Attempts>();
builder.Services.AddScoped<Passwords>();
builder.Services.AddScoped<Pin>();
builder.Services.AddScoped<SecondFactor>();
builder.Services.AddSingleton<UsedCodes>();
builder.Services.AddScoped<OwnPassword>();
builder.Services.AddScoped<SignInCookie>();
builder.Services.AddScoped<Accounts>();
builder.Services.AddSingleton<BackupRuns>();
builder.Services.AddHostedService<NightlyBackup>();
builder.Services.AddSingleton(_ => new PolicyLibrary(library.GetAwaiter().GetResult()));
builder.Services.AddScoped(services => services.GetRequiredService<PolicyLibrary>().Library);
builder.Services.AddSingleton(_ => DemoScenario.Load(settings.ContentFolder));
builder.Services.AddSingleton(services => new FigureStore(
    services.GetRequiredService<PolicyLibrary>().BuiltIn
));
builder.Services.AddSingleton<WrittenLibrary>();
builder.Services.AddSingleton<WrittenSheets>();
builder.Services.AddScoped<Kept>();
builder.Services.AddSingleton<ClientBuild>();
builder.Services.AddScoped<AuditTrail>();
builder.Services.AddScoped<Amending>();
builder.Services.AddScoped<AmendmentTrail>();
builder.Services.AddScoped<TrialMoves>();
builder.Services.AddSingleton<AuditWriter>();
builder.Services.AddDbContext<PalaestraDb>(
    (services, db) =>
        db.UseSqlite(Store.ConnectionString(settings.DataFolder))
            .AddInterceptors(
                new StandingMarks(),
                services.GetRequiredService<AmendmentTrail>(),
                services.GetRequiredService<AuditTrail>()
            )
);
builder.Services.AddSingleton<TapShelf>();
builder.Services.AddSingleton<PlanShelf>();
builder.Services.AddScoped<CaseFiles>();
builder.Services.AddScoped<Staffing>();
builder.Services.AddScoped<Bookings>();
builder.Services.AddScoped<ClientCards>();
builder.Services.AddScoped<ClientSearch>();
builder.Services.AddScoped<ClientMerges>();
builder.Services.AddScoped<DayVisits>();
builder.Services.AddScoped<ClinicFigures>();
builder.Services.AddScoped<OpenCase>();
builder.Services.AddScoped<IntakeStore>();
builder.Services.AddScoped<StandingReview>();
builder.Services.AddSingleton<StandingWorker>();
builder.Services.AddScoped<EventLog>();
builder.Services.AddSingleton<TabletKeys>();
builder.Services.AddSingleton<TakenAlong>();
builder.Services.AddScoped<TabletDays>();
builder.Services.AddScoped<Batteries>();
builder.Services.AddScoped<PlanProposals>();
builder.Services.AddScoped<ClinicPolicies>();
builder.Services.AddScoped<PracticeRuns>();
builder.Services.AddScoped<PracticeTeams>();
builder.Services.AddScoped<RecordedSessions>();
builder.Services.AddScoped<DecisionStore>();
builder.Services.AddScoped<HomeLogs>();
builder.Services.AddScoped<OutcomeSummary>();
builder.Services.AddScoped<LetterComposer>();
builder.Services.AddScoped<SentencePreview>();
builder.Services.AddSingleton<VisitNews>();
builder.Services.AddSingleton<TapQueue>();
builder.Services.AddSingleton(new TraceFiles(settings.DataFolder));
builder.Services.AddScoped<TraceStore>();
builder.Services.AddTraceQueue();
builder.Services.AddFeedLimit();
builder.Services.AddSingleton(new PhotoFiles(settings.DataFolder));
builder.Services.AddScoped<HomeProgrammes>();
builder.Services.AddScoped<HomeSeals>();
builder.Services.AddScoped<HomePages>();
builder.Services.AddScoped<HomeFile>();
builder.Services.AddScoped<HomeCodes>();
builder.Services.AddScoped<RecordsOut>();
builder.Services.AddScoped<ResearchExport>();
builder.Services.AddScoped<RecordsIn>();
builder.Services.AddScoped<CalendarFeeds>();
builder.Services.AddScoped<DemoSeeder>();
builder.Services.AddSingleton<IInstrumentSource>(
    settings.Instruments is { } at ? new LineSource(at.Host, at.Port) : new NoInstruments()
);
builder.Services.AddSingleton(services => new LiveDevices(
    library.GetAwaiter().GetResult(),
    services.GetRequiredService<TimeProvider>()
));
builder.Services.AddHostedService<InstrumentListener>();
if (!describing)
{
    builder.Services.AddHostedService(services => services.GetRequiredService<StandingWorker>());
    builder.Services.AddHostedService(services => services.GetRequiredService<AuditWriter>());
    builder.Services.AddHostedService<KeptBuild>();
    if (settings.WarmUp)
    {
        builder.Services.AddHostedService<WarmUp>();
    }
}
builder.Services.AddScoped<WhoIsHere>();
builder.Services.AddScoped<Author>();
builder.Services.AddHttpContextAccessor();
builder.Services.AddScoped<IValidator<IntakeForm>, IntakeFormValidator>();
builder.Services.AddScoped<IValidator<ClientForm>, ClientFormValidator>();
builder.Services.ConfigureHttpJsonOptions(json => CoreJson.Configure(json.SerializerOptions));
builder
    .Services.AddOptions<Microsoft.AspNetCore.Http.Json.JsonOptions>()
    .Configure<ClinicClock, ClinicWords>(
        (json, clock, words) =>
        {
            json.SerializerOptions.Converters.Add(new InstantJson(clock));
            // Before the one for what is stored: the first that fits is taken.
            var spoken = new SpokenMessages(words);
            json.SerializerOptions.Converters.Insert(0, spoken);
            json.SerializerOptions.TypeInfoResolver =
                json.SerializerOptions.TypeInfoResolver!.WithAddedModifier(spoken.AddSaid);
        }
    );
builder.Services.Configure<RouteHandlerOptions>(routes => routes.ThrowOnBadRequest = true);
builder.Services.AddProblemDetails(problems =>
    problems.CustomizeProblemDetails = context =>
        Problem.Say(
            context.ProblemDetails,
            context.HttpContext.RequestServices.GetRequiredService<ClinicWords>()
        )
);
builder.Services.AddExceptionHandler<BadRequestHandler>();
builder.Services.AddExceptionHandler<StoreFault>();
builder.Services.AddOpenApi(api =>
    api.AddDocumentTransformer(
            (document, _, _) =>
            {
                document.Info = new() { Title = "Palaestra", Version = Product.Version };
                return Task.CompletedTask;
            }
        )
        .AddOperationTransformer<Refusals>()
        .AddSchemaTransformer<PlainEnums>()
        .AddSchemaTransformer<PlainTexts>()
        .AddSchemaTransformer<PlainRatings>()
        .AddSchemaTransformer<ClosedUnions>()
        .AddDocumentTransformer<ClosedUnions>()
);
builder.Services.AddHeaders();
builder.Services.AddPacking();
builder.Services.AddHealthChecks().AddCheck<StoreHealth>("store");
builder
    .Services.AddDataProtection()
    .PersistKeysToFileSystem(new DirectoryInfo(Path.Combine(settings.DataFolder, "keys")))
    .SetApplicationName("palaestra");
builder
    .Services.AddIdentity<Practitioner, IdentityRole<Guid>>(identity =>
    {
        identity.User.RequireUniqueEmail = true;
        // Passwords weighs them.
        identity.Password.RequiredLength = 1;
        identity.Password.RequireDigit = false;
        identity.Password.RequireUppercase = false;
        identity.Password.RequireNonAlphanumeric = false;
        identity.Password.RequireLowercase = false;
        identity.Password.RequiredUniqueChars = 0;
    })
    .AddEntityFrameworkStores<PalaestraDb>()
    .AddTokenProvider<AuthenticatorTokenProvider<Practitioner>>(TokenOptions.DefaultAuthenticatorProvider)
    .AddPasswordValidator<Passwords>();
builder.Services.ConfigureApplicationCookie(cookie =>
{
    cookie.Cookie.Name = "palaestra";
    cookie.Cookie.SameSite = SameSiteMode.Strict;
    cookie.Cookie.HttpOnly = true;
    cookie.ExpireTimeSpan = OpenSignIns.Longest.ToTimeSpan();
    cookie.SlidingExpiration = false;
    cookie.Events.OnValidatePrincipal = SignInCookie.Validate;
    cookie.Events.OnRedirectToLogin = context => Refuse(context.HttpContext, 401, Message.Of("problem.401"));
    cookie.Events.OnRedirectToAccessDenied = context =>
        Refuse(context.HttpContext, 403, Message.Of("problem.403"));
});
builder.Services.AddAuthorization(options =>
    options.FallbackPolicy = new AuthorizationPolicyBuilder().RequireAuthenticatedUser().Build()
);

var app = builder.Build();

// Beside the rest of the start, as the library.
var store = describing ? Task.CompletedTask : Task.Run(() => PrepareStore(app, settings, library));

app.UseDoor(settings);
app.UseExceptionHandler();
app.UseStatusCodePages();
app.UseSecurityHeaders();
app.UseResponseCompression();
app.UseClient(settings);
app.UseAuthentication();
app.UseAudit();
app.UseAuthorization();
app.UsePermissions();
app.UseRateLimiter();

app.MapOpenApi().AllowAnonymous();
app.MapApiReference();
app.MapHealthChecks("/health", new() { ResponseWriter = StoreHealth.Write }).AllowAnonymous();
var api = app.MapGroup("")
    .RefuseUnreadParameters()
    .RefuseNullMembers()
    .AddEndpointFilterFactory(OpenCase.Find);
api.MapSignIn();
api.MapAccount();
api.MapSecondFactor();
api.MapLock();
api.MapAccounts();
api.MapInvitations();
api.MapAudit();
api.MapLibrary();
api.MapRungs();
api.MapDay();
api.MapIntake();
api.MapScreening();
api.MapTablet();
api.MapLive();
api.MapFindings();
api.MapPlanning();
api.MapPolicies();
api.MapClinic();
api.MapSentences();
api.MapBackups();
api.MapTakeHome();
api.MapVisits();
api.MapBookings();
api.MapClients();
api.MapErasures();
api.MapRecords();
api.MapNotes();
api.MapCharts();
api.MapDischarges();
api.MapClinicView();
api.MapInstruments();
api.MapTraces();
api.MapPhotos();
api.MapOutcomes();
api.MapLetters();
api.MapHomeLog();
api.MapAmendments();
api.MapPractice();
api.MapRecorded();
api.MapOwnEye();
api.MapDecide();
api.MapLookBack();
api.MapCompute();
app.MapScreenWords();

try
{
    await library;
    await store;
    app.Lifetime.ApplicationStarted.Register(() => SayWhatIsOpen(app));
    await app.RunAsync();
    return 0;
}
catch (StartRefusedException refused)
{
    await app.DisposeAsync();
    return Told(refused);
}

static int Told(StartRefusedException refused)
{
    Console.Error.WriteLine($"Palaestra did not start: {refused.Message}");
    return refused.ExitCode;
}

static async Task PrepareStore(WebApplication app, Settings settings, Task<PracticeLibrary> library)
{
    var clock = app.Services.GetRequiredService<TimeProvider>();
    var now = clock.GetLocalNow().DateTime;
    var folder = app.Services.GetRequiredService<DataFolder>();
    folder.Take();
    var fill = settings.Demo && DemoStart.NeedsFilling(settings.DataFolder, now);
    await using var scope = app.Services.CreateAsyncScope();
    var db = scope.ServiceProvider.GetRequiredService<PalaestraDb>();
    await folder.Prepare(db, now);
    await app.Services.GetRequiredService<ClinicClock>().Read(db);
    await app.Services.GetRequiredService<OpenSignIns>().Read(db);
    await app.Services.GetRequiredService<ClinicCatalog>().Read(db);
    await Store.MarkStandingsOfOtherContent(db, (await library).Version);
    if (await Store.HasOwnPolicies(settings.DataFolder))
    {
        var clinicPolicies = scope.ServiceProvider.GetRequiredService<ClinicPolicies>();
        app.Services.GetRequiredService<PolicyLibrary>().Put(await clinicPolicies.Revisions());
    }
    if (await db.Clinics.Select(c => c.OwnEye).SingleOrDefaultAsync() is { } eye)
    {
        app.Services.GetRequiredService<PolicyLibrary>().See(eye);
    }
    if (fill)
    {
        await scope.ServiceProvider.GetRequiredService<DemoSeeder>().Fill();
        DemoStart.MarkFilled(settings.DataFolder, now);
    }
    if (await app.Services.GetRequiredService<FirstAdministrator>().Offer(clock.GetLocalNow()) is { } code)
    {
        Console.WriteLine($"This clinic has no account yet. The code for its first administrator: {code}");
    }
}

static void SayWhatIsOpen(WebApplication app)
{
    foreach (var address in Door.Open(app.Urls))
    {
        Console.Error.WriteLine(
            $"{address} is plain http: whoever is on the network can read along, and camera and offline start do not work. See docs/clinic.md, “https”."
        );
    }
}

static Task Refuse(HttpContext context, int status, Message said) =>
    Problem.Of(status, said).ExecuteAsync(context);
