namespace Palaestra.Core.Terms;

/// <summary>Says which input was wrong and, in a sentence a person can act on, why.</summary>
/// <param name="Field">Path of the field in the caller's own terms, for example <c>events[3].value</c>.</param>
public sealed record FieldError(string Field, Message Message);

/// <summary>A value, or the reasons there is none. Errors are values here; exceptions are for bugs.</summary>
public sealed record Checked<T>(T? Value, IReadOnlyList<FieldError> Errors)
    where T : class
{
    /// <summary>There is a value and nothing is wrong with it.</summary>
    public bool IsValid => Errors.Count == 0 && Value is not null;

    /// <summary>A value without errors.</summary>
    public static Checked<T> Good(T value) => new(value, []);

    /// <summary>Errors in the place of a value.</summary>
    public static Checked<T> Bad(params IReadOnlyList<FieldError> errors) => new(null, errors);
}
