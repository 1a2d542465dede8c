using PdfSharp;

namespace Palaestra.Exchange.Sheets;

/// <summary>What letters and home programmes are printed on.</summary>
public enum Paper
{
    A4,
    Letter,
}

public static class Papers
{
    public static PageSize Size(this Paper paper) =>
        paper switch
        {
            Paper.Letter => PageSize.Letter,
            _ => PageSize.A4,
        };
}
