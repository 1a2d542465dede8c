using System.Linq.Expressions;
using FluentValidation;

namespace Palaestra.Server.Clients;

/// <summary>What a name and a birth date must be, wherever a client is written down.</summary>
public static class PersonRules
{
    public const int NameMost = 120;
    private const int OldestYears = 120;

    /// <param name="today">Of the clinic: nobody is born after it.</param>
    public static void Person<T>(
        this AbstractValidator<T> form,
        Expression<Func<T, string>> name,
        Expression<Func<T, DateOnly>> birthDate,
        DateOnly today
    )
    {
        form.RuleFor(name).NotEmpty().WithState(_ => Message.Of("client.name"));
        form.RuleFor(name).MaximumLength(NameMost).WithState(_ => Message.Of("client.name-long"));
        form.RuleFor(birthDate)
            .InclusiveBetween(today.AddYears(-OldestYears), today)
            .WithState(_ => Message.Of("client.born"));
    }
}
