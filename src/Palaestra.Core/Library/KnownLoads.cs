using Palaestra.Core.Body;

namespace Palaestra.Core.Library;

/// <summary>Demands of a whole library as they were worked out before, so that a start need not do it again.</summary>
/// <param name="LibraryVersion">Fingerprint of the content they belong to.</param>
/// <param name="Model">Fingerprint of the code that worked them out.</param>
/// <param name="Demands">By rung, N·m for a typical body.</param>
public sealed record KnownLoads(
    string LibraryVersion,
    Guid Model,
    IReadOnlyDictionary<string, Demands> Demands
)
{
    /// <summary>Changes with every change of the core's code.</summary>
    public static Guid PresentModel => typeof(KnownLoads).Module.ModuleVersionId;

    /// <summary>The loads of every rung, worked out now.</summary>
    public static KnownLoads Of(PracticeLibrary library) =>
        new(library.Version, PresentModel, library.Demands.All);

    /// <summary>Only for the very content and code they were worked out with.</summary>
    public bool Fits(PracticeLibrary library) => LibraryVersion == library.Version && Model == PresentModel;
}
