using FluentValidation;

namespace Palaestra.Server.Problems;

public static class Validated
{
    /// <summary>Field errors with the names as they stand in the JSON.</summary>
    public static IReadOnlyList<FieldError> Errors<T>(this IValidator<T> validator, T form) =>
        [
            .. validator
                .Validate(form)
                .Errors.Select(e => new FieldError(
                    Camel(e.PropertyName),
                    e.CustomState as Message ?? Message.Plain(e.ErrorMessage)
                )),
        ];

    private static string Camel(string path) =>
        string.Join(
            '.',
            path.Split('.')
                .Select(part => part.Length == 0 ? part : char.ToLowerInvariant(part[0]) + part[1..])
        );
}
