using System.Globalization;
using OpenTelemetry.Exporter;
using OpenTelemetry.Metrics;
using OpenTelemetry.Resources;
using OpenTelemetry.Trace;
using Serilog;

namespace Palaestra.Server.Serving;

/// <summary>
/// What the server tells of itself to whoever keeps it: a log in files, and measures and traces of requests to a collector where one is
/// named. Neither holds names: addresses carry ids alone, and what was asked for after the question mark is not told.
/// </summary>
internal static class Telemetry
{
    public const string LogFolder = "logs";

    private const string Collector = "OTEL_EXPORTER_OTLP_ENDPOINT";
    private const int LogDaysKept = 14;

    /// <summary>A file a day in the data folder, kept a fortnight.</summary>
    public static void ToFiles(this LoggerConfiguration log, Settings settings) =>
        log.WriteTo.File(
            Path.Combine(settings.DataFolder, LogFolder, "palaestra-.log"),
            formatProvider: CultureInfo.InvariantCulture,
            rollingInterval: RollingInterval.Day,
            retainedFileCountLimit: LogDaysKept
        );

    /// <summary>Does nothing where no collector is named in OTEL_EXPORTER_OTLP_ENDPOINT (OpenTelemetry's own setting).</summary>
    public static void AddTelemetry(this WebApplicationBuilder builder)
    {
        if (builder.Configuration[Collector] is not { Length: > 0 })
        {
            return;
        }
        builder
            .Services.AddOpenTelemetry()
            .ConfigureResource(resource => resource.AddService("palaestra"))
            .WithMetrics(metrics =>
                metrics.AddAspNetCoreInstrumentation().AddRuntimeInstrumentation().AddOtlpExporter(OverHttp)
            )
            .WithTracing(traces =>
                traces
                    // The address of a feed is its key.
                    .AddAspNetCoreInstrumentation(asked =>
                        asked.Filter = context => !context.Request.Path.StartsWithSegments("/feeds")
                    )
                    .AddOtlpExporter(OverHttp)
            );

        void OverHttp(OtlpExporterOptions exporter)
        {
            if (builder.Configuration["OTEL_EXPORTER_OTLP_PROTOCOL"] is not { Length: > 0 })
            {
                exporter.Protocol = OtlpExportProtocol.HttpProtobuf;
            }
        }
    }
}
