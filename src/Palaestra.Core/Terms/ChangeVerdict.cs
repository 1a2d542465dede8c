namespace Palaestra.Core.Terms;

/// <summary>What a change between two measurements comes to.</summary>
public enum ChangeVerdict
{
    /// <summary>Better by more than the error.</summary>
    Better,

    /// <summary>Worse by more than the error.</summary>
    Worse,

    /// <summary>Within the error.</summary>
    NoClearChange,
}
