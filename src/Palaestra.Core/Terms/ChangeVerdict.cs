namespace Palaestra.Core.Terms;

public enum ChangeVerdict
{
    Better,
    Worse,
    NoClearChange,
}
