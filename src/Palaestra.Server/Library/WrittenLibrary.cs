using System.Security.Cryptography;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.Extensions.Options;
using Palaestra.Core.Library;
using Palaestra.Server.Policies;
using Palaestra.Server.Words;
using Palaestra.Words;

namespace Palaestra.Server.Library;

/// <summary>The library as it is answered, and the name of what is in it: written once for as long as nothing of it changes.</summary>
public sealed class WrittenLibrary(
    PolicyLibrary policies,
    ClinicCatalog catalog,
    ClinicWords words,
    IOptions<JsonOptions> json
)
{
    /// <summary>On every answer under /api: the version of library and drawings that is in force.</summary>
    public const string Header = "Palaestra-Content";

    private volatile Writing? last;

    /// <param name="Library">What it was written from.</param>
    /// <param name="Sentences">And how things were said then.</param>
    /// <param name="Version">Of content, policies, words and of the code that draws.</param>
    private sealed record Writing(PracticeLibrary Library, Catalog Sentences, Written Answer, string Version);

    public string Version => Now.Version;

    public Written Answer => Now.Answer;

    private Writing Now
    {
        get
        {
            var (library, sentences) = (policies.Library, catalog.Now);
            if (
                last is not { } made
                || !ReferenceEquals(made.Library, library)
                || !ReferenceEquals(made.Sentences, sentences)
            )
            {
                var written = Written.Of(
                    LibraryView.Of(library, words.Rules()),
                    json.Value.SerializerOptions
                );
                last = made = new(library, sentences, written, VersionOf(written));
            }
            return made;
        }
    }

    private static string VersionOf(Written written)
    {
        using var hash = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
        hash.AppendData(written.Json);
        // What draws, and what writes.
        hash.AppendData(typeof(PracticeLibrary).Module.ModuleVersionId.ToByteArray());
        hash.AppendData(typeof(WrittenLibrary).Module.ModuleVersionId.ToByteArray());
        return Convert.ToHexStringLower(hash.GetHashAndReset())[..16];
    }
}
