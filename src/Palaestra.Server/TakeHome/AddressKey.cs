using System.Security.Cryptography;

namespace Palaestra.Server.TakeHome;

/// <summary>The secret part of an address that opens without sign-in.</summary>
public static class AddressKey
{
    /// <summary>24 random bytes: nobody guesses one (our own; 16 are common practice).</summary>
    private const int Bytes = 24;

    public static string New() => Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(Bytes));
}
