namespace Palaestra.Exchange.HomeCodes;

/// <summary>Bytes in the letters that a QR code packs densest (RFC 9285, from memory).</summary>
public static class Base45
{
    private const string Letters = "0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ $%*+-./:";

    /// <returns>None where a letter or a group of letters is none of this code.</returns>
    public static byte[]? Read(string text)
    {
        if (text.Length % 3 == 1)
        {
            return null;
        }
        var bytes = new List<byte>(text.Length * 2 / 3);
        for (var at = 0; at < text.Length; at += 3)
        {
            var group = text.AsSpan(at, Math.Min(3, text.Length - at));
            var value = 0;
            for (var i = group.Length - 1; i >= 0; i--)
            {
                var digit = Letters.IndexOf(group[i], StringComparison.Ordinal);
                if (digit < 0)
                {
                    return null;
                }
                value = value * 45 + digit;
            }
            if (value > (group.Length == 3 ? ushort.MaxValue : byte.MaxValue))
            {
                return null;
            }
            if (group.Length == 3)
            {
                bytes.Add((byte)(value >> 8));
            }
            bytes.Add((byte)value);
        }
        return [.. bytes];
    }

    public static string Write(ReadOnlySpan<byte> bytes)
    {
        var text = new System.Text.StringBuilder(bytes.Length * 3 / 2 + 2);
        for (var at = 0; at < bytes.Length; at += 2)
        {
            var pair = at + 1 < bytes.Length;
            var value = pair ? (bytes[at] << 8) + bytes[at + 1] : bytes[at];
            for (var i = 0; i < (pair ? 3 : 2); i++, value /= 45)
            {
                text.Append(Letters[value % 45]);
            }
        }
        return text.ToString();
    }
}
