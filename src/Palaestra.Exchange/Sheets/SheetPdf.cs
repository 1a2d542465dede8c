using Palaestra.Words;
using PdfSharp.Pdf;
using PdfSharp.UniversalAccessibility;

namespace Palaestra.Exchange.Sheets;

/// <summary>Writes a sheet as PDF: fonts embedded, figures as vectors, headings and pictures tagged.</summary>
public static class SheetPdf
{
    /// <param name="large">Large print: letters half as large again, and the drawings wider.</param>
    public static byte[] Write(Sheet sheet, Paper paper, bool large, Speech speech)
    {
        SheetFonts.Use();
        using var document = new PdfDocument();
        document.Info.Title = speech.Say(Message.Of("sheet.title", ("name", sheet.ClientName)));
        document.Info.Author = sheet.ClinicName;
        document.Info.Creator = Product.Maker;
        document.Info.Subject = sheet.Line;
        document.Language = "en-GB";
        document.ViewerPreferences.DisplayDocTitle = true;
        var tags = UAManager.ForDocument(document);
        var pages = new SheetPages(document, tags.StructureBuilder, paper, large, sheet, speech);
        pages.Exercises();
        if (sheet.Record is { } record)
        {
            pages.Record(record);
        }
        pages.Close();
        using var bytes = new MemoryStream();
        document.Save(bytes);
        return AccessibleMark.On(bytes.ToArray());
    }
}
