namespace Palaestra.Core.Terms;

/// <summary>In what a person's height and mass are read and written. They are kept in metres and kilograms whatever is chosen.</summary>
public enum PersonUnits
{
    /// <summary>Kilograms and centimetres.</summary>
    KgCm,

    /// <summary>Pounds, feet and inches.</summary>
    LbFtIn,
}
