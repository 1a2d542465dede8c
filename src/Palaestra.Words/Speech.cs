namespace Palaestra.Words;

/// <summary>One language, said in one manner.</summary>
public sealed class Speech(Catalog catalog, Manner manner)
{
    public string Say(Message message) => catalog.Say(message, manner);
}
