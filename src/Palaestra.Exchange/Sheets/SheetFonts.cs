using PdfSharp.Fonts;

namespace Palaestra.Exchange.Sheets;

/// <summary>The fonts that ship with the product; nothing is looked for on the machine.</summary>
internal sealed class SheetFonts : IFontResolver
{
    public const string Text = "Atkinson Hyperlegible Next";
    public const string Display = "Bricolage Grotesque";

    private static readonly Lock Once = new();

    /// <summary>PDFsharp has one resolver for the whole process.</summary>
    public static void Use()
    {
        lock (Once)
        {
            GlobalFontSettings.FontResolver ??= new SheetFonts();
        }
    }

    public FontResolverInfo? ResolveTypeface(string familyName, bool bold, bool italic) =>
        new(
            familyName == Display ? "BricolageGrotesque_700Bold"
            : bold ? "AtkinsonHyperlegibleNext_700Bold"
            : "AtkinsonHyperlegibleNext_400Regular"
        );

    public byte[]? GetFont(string faceName)
    {
        using var stream =
            typeof(SheetFonts).Assembly.GetManifestResourceStream(faceName)
            ?? throw new InvalidOperationException($"The font {faceName} is not in the assembly.");
        using var bytes = new MemoryStream();
        stream.CopyTo(bytes);
        return bytes.ToArray();
    }
}
