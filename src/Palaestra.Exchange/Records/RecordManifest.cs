namespace Palaestra.Exchange.Records;

/// <summary>One file of an archive.</summary>
/// <param name="Bytes">Unpacked.</param>
/// <param name="Sha256">In hexadecimal.</param>
public sealed record RecordEntry(string Name, long Bytes, string Sha256);

/// <summary>What an archive of a record holds; it lies in it under <see cref="Name"/>.</summary>
/// <param name="Kind"><see cref="RecordKind"/>, or <see cref="ClinicKind"/> for an archive of such archives.</param>
/// <param name="Format">Counts changes that an older version cannot read.</param>
public sealed record RecordManifest(string Kind, int Format, IReadOnlyList<RecordEntry> Files)
{
    public const string Name = "manifest.json";
    public const string RecordKind = "palaestra-record";
    public const string ClinicKind = "palaestra-clinic";
    public const int Present = 1;
}
