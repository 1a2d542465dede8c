using Microsoft.EntityFrameworkCore.Storage.ValueConversion;
using NodaTime;

namespace Palaestra.Data;

/// <summary>An instant is stored as date and time in UTC.</summary>
internal sealed class InstantColumn()
    : ValueConverter<Instant, DateTime>(
        at => at.ToDateTimeUtc(),
        stored => Instant.FromDateTimeUtc(DateTime.SpecifyKind(stored, DateTimeKind.Utc))
    );
