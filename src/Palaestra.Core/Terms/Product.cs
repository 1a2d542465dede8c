using System.Reflection;

namespace Palaestra.Core.Terms;

/// <summary>What made a file or answered a question.</summary>
public static class Product
{
    /// <summary>"0.19.0", as <c>Directory.Build.props</c> says.</summary>
    public static string Version { get; } =
        typeof(Product)
            .Assembly.GetCustomAttribute<AssemblyInformationalVersionAttribute>()
            ?.InformationalVersion.Split('+')[0]
        ?? "0";

    /// <summary>Name and version, for files.</summary>
    public static string Maker => $"Palaestra {Version}";
}
