namespace Palaestra.Server.Instruments;

/// <summary>Where a bridge to instruments listens.</summary>
public sealed record InstrumentAddress(string Host, int Port)
{
    /// <summary>From "host:port"; none for nothing.</summary>
    /// <exception cref="FormatException">It is something else: the server does not start with half a setting.</exception>
    public static InstrumentAddress? From(string? text)
    {
        if (string.IsNullOrWhiteSpace(text))
        {
            return null;
        }
        var colon = text.LastIndexOf(':');
        return colon > 0 && int.TryParse(text[(colon + 1)..], out var port) && port is > 0 and < 65536
            ? new(text[..colon], port)
            : throw new FormatException($"PALAESTRA_INSTRUMENTS is “{text}”; it should be host:port.");
    }
}
