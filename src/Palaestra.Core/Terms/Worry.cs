namespace Palaestra.Core.Terms;

/// <summary>What made the client or the practitioner stop, told in one tap.</summary>
public enum Worry
{
    /// <summary>With its number as a mark of pain.</summary>
    Pain,

    /// <summary>Pain moved further down the leg.</summary>
    DownTheLeg,

    /// <summary>Numbness or weakness: a red flag.</summary>
    NumbOrWeak,

    /// <summary>Dizzy or unwell.</summary>
    DizzyOrUnwell,

    /// <summary>The client wants to stop.</summary>
    ClientsWish,
}
